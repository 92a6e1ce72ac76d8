import { useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { day, moment } from '../../format/format.ts';
import { useKeys } from '../../shell/keys.ts';
import { Opening } from '../../shell/Opening.tsx';
import { tableActions } from '../../shell/table-store.ts';
import { Ready } from '../../ui/states.tsx';
import { useVocabulary } from '../fact/FactEditor.tsx';
import { HistoryPart } from '../part/HistoryPart.tsx';
import { OnTableButton } from '../part/OnTableButton.tsx';
import { WhatChanged } from '../fact/WhatChanged.tsx';
import { Notices } from './ConfigurationNotices.tsx';
import { Facts } from './FactsPart.tsx';
import { Name } from './ConfigurationName.tsx';
import { Editing } from './EditingFacts.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];

const route = getRouteApi('/shelf/configurations/$configurationId');

/** Every fact of a configuration with where it comes from, what changed since its parent, and what can be done with it. */
export function ConfigurationView() {
  const id = Number(route.useParams().configurationId);
  const page = useQuery({
    queryKey: ['configuration', id],
    queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id } } })),
  });
  return (
    <Ready query={page} what="the configuration">
      {(data) => <Configuration key={id} page={data} />}
    </Ready>
  );
}

function Configuration({ page }: { page: ConfigurationPage }) {
  const { configuration: c, parentId } = page;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const vocabulary = useVocabulary();
  const [editing, setEditing] = useState(false);
  const show = (next: ConfigurationPage) => {
    queries.setQueryData(['configuration', c.id], next);
    void changed(queries, 'shelf');
  };
  const copy = () => void navigate({ to: '/shelf/configure', search: { unit: page.unitId, from: c.id } });
  const edit = () => (page.sessions > 0 ? copy() : setEditing(true));
  useKeys(
    editing
      ? []
      : [
          { key: 'Enter', does: 'Put it on the table, or take it off', run: () => void tableActions.toggle(c.id) },
          { key: 'c', does: 'Copy it and change facts', changes: true, run: copy },
          {
            key: 'e',
            does: page.sessions > 0 ? 'Change facts, in a copy because it was measured' : 'Change facts',
            changes: true,
            run: edit,
          },
          {
            key: 's',
            does: 'Type scores',
            changes: true,
            run: () => void navigate({ to: '/bench/by-hand', search: { configuration: c.id } }),
          },
          ...(parentId === undefined
            ? []
            : [
                {
                  key: 'd',
                  does: 'Facts beside those of its parent',
                  run: () => void navigate({ to: '/shelf/difference', search: { ids: [parentId, c.id] } }),
                },
              ]),
        ],
  );

  if (editing && vocabulary.data)
    return (
      <Editing
        page={page}
        entries={vocabulary.data}
        onDone={(next) => {
          setEditing(false);
          if (next) show(next);
        }}
      />
    );
  return (
    <>
      <Opening
        title={c.name}
        sentence={
          <>
            A configuration of{' '}
            <Link to="/shelf/models/$modelId" params={{ modelId: String(c.modelId) }} className="choice">
              {c.maker} {c.model}
            </Link>
            , {c.unit}, since {day(page.createdAt)}
            {page.sessions > 0
              ? `, measured in ${page.sessions} ${page.sessions === 1 ? 'session' : 'sessions'}`
              : ', not measured yet'}
            {c.retired && ', retired'}.
          </>
        }
      >
        <OnTableButton id={c.id} />
        <button data-changes className="button" onClick={copy}>
          Copy and change <kbd>c</kbd>
        </button>
        {page.sessions === 0 && page.mergedInto === undefined && (
          <button data-changes className="button" onClick={edit}>
            Edit <kbd>e</kbd>
          </button>
        )}
        {page.sessions > 0 && (
          <Link
            to="/shelf/configurations/$configurationId/card"
            params={{ configurationId: String(c.id) }}
            className="button"
          >
            Report card
          </Link>
        )}
        {page.sessions > 0 && (
          <Link to="/trends" search={{ model: c.modelId, between: [c.id] }} className="button">
            Its trends
          </Link>
        )}
        <Link data-changes to="/bench/by-hand" search={{ configuration: c.id }} className="button">
          Type scores <kbd>s</kbd>
        </Link>
        <Link to="/ledger" search={{ configuration: c.id }} className="button">
          Its readings
        </Link>
      </Opening>
      <Notices page={page} onPage={show} />
      <div className="grid gap-x-10 lg:grid-cols-[1fr_330px]">
        <Facts page={page} onPage={show} />
        <aside className="min-w-0">
          <WhatChanged page={page} />
          <Sessions id={c.id} />
          <Name page={page} onPage={show} />
          <HistoryPart
            subject="configuration"
            id={c.id}
            onUndone={() => void queries.invalidateQueries({ queryKey: ['configuration', c.id] })}
          />
        </aside>
      </div>
    </>
  );
}

function Sessions({ id }: { id: number }) {
  const sessions = useQuery({
    queryKey: ['configuration', id, 'sessions'],
    queryFn: () => value(api.GET('/api/configurations/{id}/sessions', { params: { path: { id } } })),
  });
  return (
    <section>
      <h2>Sessions</h2>
      <Ready query={sessions} what="its sessions">
        {(list) => (
          <ul>
            {list.map((s) => (
              <li key={s.id} className="border-b border-hair-2 py-1.5">
                <Link
                  to={s.byHand ? '/bench/sheet/$sessionId' : '/ledger'}
                  params={{ sessionId: String(s.id) }}
                  search={s.byHand ? {} : { session: s.id }}
                  className="font-semibold hover:underline"
                >
                  {s.planName}
                </Link>
                , {moment(s.startedAt)}
                <span className="small block">
                  {s.onMains === undefined ? 'power not known' : s.onMains ? 'on mains' : 'on battery'},{' '}
                  {s.state.toLowerCase()}
                </span>
                {s.checks.length > 0 && (
                  <details>
                    <summary className="small cursor-pointer">
                      {s.checks.filter((k) => k.ticked).length} of {s.checks.length} checks ticked,{' '}
                      {s.checks[0]!.person}
                    </summary>
                    <ul>
                      {s.checks.map((k) => (
                        <li key={k.text} className={`small ${k.ticked ? '' : 'text-gold-ink'}`}>
                          {k.ticked ? '✓' : '–'} {k.text}
                        </li>
                      ))}
                    </ul>
                  </details>
                )}
              </li>
            ))}
            {list.length === 0 && <li className="small">Not measured yet.</li>}
          </ul>
        )}
      </Ready>
    </section>
  );
}
