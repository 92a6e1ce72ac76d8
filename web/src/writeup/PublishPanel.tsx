import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { CopyButton } from '../ui/CopyButton.tsx';
import { api, value, type Schemas } from '../api/client.ts';
import { Panel } from '../ui/Panel.tsx';
import { BoldClaims } from './BoldClaims.tsx';
import { kindsQuery } from './question/begin.ts';
import { allConfigurations, askedBy } from './question/questions.ts';
import type { Report } from './figure/shown.ts';
import { drawStanding } from './figure/standing-rows.ts';
import { standingOf } from './figure/answers.ts';
import type { Writing } from './text/writing.ts';

/** Says what goes out, what speaks against it, and publishes. */
export function PublishPanel({
  page,
  reports,
  writing,
  onClose,
}: {
  page: Schemas['WriteUpPage'];
  reports: ReadonlyMap<number, Report>;
  writing: Writing;
  onClose: () => void;
}) {
  const [changes, setChanges] = useState('');
  const [listed, setListed] = useState(page.writeUp.listed || page.editions.length === 0);
  const [kind, setKind] = useState(page.writeUp.kind ?? '');
  const kinds = useQuery(kindsQuery);
  const all = writing.pieces.map((p) => reports.get(p.id)).filter((r) => r !== undefined);
  const stops = [...new Set(all.flatMap((r) => (r.stops ? [r.stops] : [])))];
  const off = all.reduce((n, r) => n + r.off, 0);
  const again = page.editions.length > 0;
  const publish = useMutation({
    mutationFn: async () => {
      const now = await writing.stored();
      return value(
        api.POST('/api/write-ups/{id}/editions', {
          params: { path: { id: page.writeUp.id } },
          body: {
            revision: now.data!.revision,
            listed,
            kind: kind.trim() || undefined,
            ...(again ? { changes } : {}),
            shown: shownOf(writing, reports),
            ...(await standingNow(writing)),
          },
        }),
      );
    },
    onSuccess: () => void writing.refresh(),
  });
  const address = `${window.location.origin}/w/${page.writeUp.publicKey}`;
  return (
    <Panel open onClose={onClose} title={again ? 'Publish another edition' : 'Publish'}>
      {publish.data ? (
        <div role="status" className="mt-3">
          <p>
            Edition {publish.data.number} is at{' '}
            <a href={address} className="link break-all" target="_blank" rel="noreferrer">
              {address}
            </a>
            . Text, numbers and figures stay as they are now, whatever happens in the ledger.
          </p>
          <p className="mt-2">
            <CopyButton text={address} what="the address" />
          </p>
        </div>
      ) : (
        <>
          <p className="mt-2 text-ink-2">
            Text, numbers, figures and their data are frozen as they are now, under an address that anybody can read.
            {again && ' The editions before stay readable.'}
          </p>
          {stops.map((s) => (
            <p key={s} className="mt-2 text-plum">
              {s}
            </p>
          ))}
          {off > 0 && (
            <p className="mt-2 text-plum">
              {off} {off === 1 ? 'number does' : 'numbers do'} not agree with what is measured now. They stand in plum;
              they go out as they are written.
            </p>
          )}
          <BoldClaims writing={writing} />
          {again && (
            <label className="mt-3 block">
              <span className="small">What is other than in edition {page.editions[0]!.number}</span>
              <textarea
                className="field w-full"
                rows={2}
                maxLength={1000}
                value={changes}
                onChange={(e) => setChanges(e.target.value)}
              />
            </label>
          )}
          <label className="mt-3 block">
            <input type="checkbox" checked={listed} onChange={(e) => setListed(e.target.checked)} /> List it on the
            lab’s public page; otherwise only its address leads there
          </label>
          <label className="mt-3 block">
            <span className="small">Its kind, by which the public page sorts</span>
            <input
              className="field w-full"
              list="kinds-of-write-ups"
              maxLength={60}
              value={kind}
              onChange={(e) => setKind(e.target.value)}
            />
            <datalist id="kinds-of-write-ups">
              {kinds.data?.map((k) => (
                <option key={k.id} value={k.name} />
              ))}
            </datalist>
          </label>
          {publish.error && (
            <p role="alert" className="mt-2 text-plum">
              {publish.error.message}
            </p>
          )}
          <button
            className="button button-main mt-4"
            disabled={
              publish.isPending || stops.length > 0 || writing.pieces.length === 0 || (again && changes.trim() === '')
            }
            onClick={() => publish.mutate()}
          >
            Publish {off > 0 ? 'all the same' : ''}
          </button>
          {writing.pieces.length === 0 && <p className="small mt-2">There is nothing in it yet.</p>}
        </>
      )}
      {page.editions.length > 0 && (
        <section className="mt-5">
          <h3 className="border-b border-hair pb-1">Editions</h3>
          <ul>
            {page.editions.map((e) => (
              <li key={e.number} className="small border-b border-hair-2 py-1">
                <a href={`/w/${page.writeUp.publicKey}/${e.number}`} className="link" target="_blank" rel="noreferrer">
                  Edition {e.number}
                </a>
                , {e.person}
                {e.changes && `: ${e.changes}`} ·{' '}
                {(
                  [
                    ['page.html', 'one page that stands alone'],
                    ['folder.zip', 'a folder for a web server'],
                    ['markdown.zip', 'Markdown'],
                    ['data.zip', 'data'],
                  ] as const
                ).map(([file, words]) => (
                  <a
                    key={file}
                    href={`/w/${page.writeUp.publicKey}/${e.number}/${file}`}
                    className="link mr-2"
                    download
                  >
                    {words}
                  </a>
                ))}
              </li>
            ))}
          </ul>
        </section>
      )}
    </Panel>
  );
}

/** Where the device stands that it speaks of first, as its own standing asks or among its class: what an edition leads to. */
async function standingNow(writing: Writing): Promise<{ standing?: Schemas['Shown'] }> {
  const first = allConfigurations(writing.pieces)[0];
  if (first === undefined) return {};
  try {
    const { configuration } = await value(api.GET('/api/configurations/{id}', { params: { path: { id: first } } }));
    const asked = askedBy(writing.pieces).find((q) => q.of === 'standing') ?? {
      deviceClass: configuration.deviceClass,
    };
    const drawn = drawStanding(await standingOf(asked).queryFn(), { ...asked, highlight: first });
    if (!drawn) return {};
    const { svg, narrow, columns, rows } = drawn;
    return {
      standing: {
        svg,
        ...(narrow !== undefined && { narrow }),
        columns,
        rows,
        caption: drawn.caption.slice(0, 1000),
        alt: drawn.alt.slice(0, 2000),
      },
    };
  } catch {
    // Without it the page says all that was written; nothing of it may keep it from going out.
    return {};
  }
}

/** What every piece shows now, by its number. */
export function shownOf(writing: Writing, reports: ReadonlyMap<number, Report>): Record<string, Schemas['Shown']> {
  return Object.fromEntries(
    writing.pieces.flatMap((p) => {
      const shown = reports.get(p.id)?.shown;
      return shown ? [[String(p.id), shown]] : [];
    }),
  );
}
