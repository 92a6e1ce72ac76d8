import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { useReader } from '../access/access-context.ts';
import { api, value } from '../api/client.ts';
import { moment } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { useTable } from '../shell/table-store.ts';
import { Pager } from '../ui/Pager.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { aboutThese } from './question/begin.ts';
import { KindsPanel } from './KindsPanel.tsx';
import { LookPanel } from './LookPanel.tsx';
import { WriteUpButton } from './question/WriteUpButton.tsx';

const SIZE = 30;
const route = getRouteApi('/write-ups');

/** Every write-up, those that were changed last first. */
export function WriteUpsView() {
  const reader = useReader();
  const queries = useQueryClient();
  const search = route.useSearch();
  const navigate = useNavigate();
  const page = (search.page ?? 1) - 1;
  const { entries, base } = useTable();
  const [look, setLook] = useState(false);
  const [kinds, setKinds] = useState(false);
  const [removed, setRemoved] = useState<{ id: number; title: string }>();
  const all = useQuery({
    queryKey: ['write-ups', page],
    queryFn: () => value(api.GET('/api/write-ups', { params: { query: { page, size: SIZE } } })),
    placeholderData: keepPreviousData,
  });
  const changed = () => void queries.invalidateQueries({ queryKey: ['write-ups'] });
  /** About what is on the table, against its base. */
  async function aboutTable() {
    const found = await Promise.all(
      entries.map((e) =>
        value(api.GET('/api/configurations/{id}', { params: { path: { id: e.id } } })).then((c) => c.configuration),
      ),
    );
    const of = found.find((c) => c.id === base) ?? found.at(1);
    return aboutThese(
      found.filter((c) => c.id !== of?.id),
      of,
    );
  }
  const remove = useMutation({
    mutationFn: (w: { id: number; title: string }) =>
      value(api.DELETE('/api/write-ups/{id}', { params: { path: { id: w.id } } })),
    onSuccess: (_, w) => {
      setRemoved(w);
      changed();
    },
  });
  const restore = useMutation({
    mutationFn: (id: number) => value(api.POST('/api/write-ups/{id}/restore', { params: { path: { id } } })),
    onSuccess: () => {
      setRemoved(undefined);
      changed();
    },
  });
  const error = remove.error ?? restore.error;
  return (
    <>
      <Opening
        title="Write-ups"
        sentence={
          <>
            What the readers get: pages written beside the numbers, and frozen when they are published. The lab’s public
            page is{' '}
            <a href="/w" className="link" target="_blank" rel="noreferrer">
              {window.location.host}/w
            </a>
            ; all of it can be taken along as{' '}
            <a href="/api/site.zip" className="link" download>
              a folder for any web host
            </a>
            .
          </>
        }
      >
        {!reader && (
          <>
            <button className="button" onClick={() => setLook(true)}>
              Branding
            </button>
            <button className="button" onClick={() => setKinds(true)}>
              Templates
            </button>
            <WriteUpButton main beginning={aboutTable}>
              {entries.length > 0 ? 'Write up the table' : 'Begin one'}
            </WriteUpButton>
          </>
        )}
      </Opening>
      {error && (
        <p role="alert" className="mb-2 text-plum">
          {error.message}
        </p>
      )}
      {removed && (
        <p role="status" className="mb-2">
          “{removed.title}” is removed.{' '}
          <button className="link" onClick={() => restore.mutate(removed.id)}>
            Undo
          </button>
        </p>
      )}
      <Ready query={all} what="the write-ups">
        {(data) =>
          data.total === 0 ? (
            <Empty title="Nothing is written yet">
              Put the configurations that you write about on the table, make the one to compare them with the base, and
              press “Write up the table”. Text, figures and numbers stand in it side by side.
            </Empty>
          ) : (
            <>
              <ul aria-label="Write-ups">
                {data.rows.map((w) => (
                  <li
                    key={w.id}
                    className="grid grid-cols-[1fr_auto] gap-x-6 border-b border-hair-2 py-2.5 max-sm:grid-cols-1"
                  >
                    <div className="min-w-0">
                      <Link
                        to="/write-ups/$writeUpId"
                        params={{ writeUpId: String(w.id) }}
                        className="font-title text-[19px]"
                      >
                        {w.title}
                      </Link>
                      {w.subtitle && <p className="text-ink-2">{w.subtitle}</p>}
                      <p className="small">
                        {w.about.map((a) => a.name).join(', ')}
                        {w.about.length > 0 && ' · '}
                        {w.madeBy}, changed {moment(w.changedAt)}
                      </p>
                    </div>
                    <p className="small text-right max-sm:text-left">
                      {w.publishedAt ? (
                        <>
                          <a href={`/w/${w.publicKey}`} className="link" target="_blank" rel="noreferrer">
                            edition {w.editions}
                          </a>
                          , {moment(w.publishedAt)}
                          <br />
                          {w.listed ? 'listed' : 'by its address only'}
                        </>
                      ) : (
                        'draft'
                      )}
                      {!reader && (
                        <>
                          {' · '}
                          <button
                            className="link"
                            aria-label={`Remove ${w.title}`}
                            onClick={() => {
                              if (
                                !w.publishedAt ||
                                window.confirm(`Remove “${w.title}”? Its readers find nothing there then.`)
                              )
                                remove.mutate(w);
                            }}
                          >
                            remove
                          </button>
                        </>
                      )}
                    </p>
                  </li>
                ))}
              </ul>
              <Pager
                page={page}
                size={SIZE}
                total={data.total}
                onPage={(next) => void navigate({ to: '/write-ups', search: { page: next + 1 } })}
              />
            </>
          )
        }
      </Ready>
      {kinds && <KindsPanel onClose={() => setKinds(false)} />}
      {look && <LookPanel onClose={() => setLook(false)} />}
    </>
  );
}
