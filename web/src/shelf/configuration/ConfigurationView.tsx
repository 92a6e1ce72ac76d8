import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, Problem, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { day, moment } from '../../format/format.ts';
import { useKeys } from '../../shell/keys.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { Opening } from '../../shell/Opening.tsx';
import { tableActions } from '../../shell/table-store.ts';
import { Ready } from '../../ui/states.tsx';
import { CorrectionForm } from '../fact/CorrectionForm.tsx';
import { fromFacts, parts, type Entry, type FactRow, type toBody } from '../fact/fact-rows.ts';
import { FactEditor, useVocabulary } from '../fact/FactEditor.tsx';
import { FieldLine } from '../part/FieldLine.tsx';
import { HistoryPart } from '../part/HistoryPart.tsx';
import { OnTableButton } from '../part/OnTableButton.tsx';
import { WhatChanged } from '../fact/WhatChanged.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];
const route = getRouteApi('/shelf/configurations/$configurationId');
const SOURCES = { DETECTED: 'detected', TYPED: 'typed', READ: 'from a tool' } as const;

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

function Notices({ page, onPage }: { page: ConfigurationPage; onPage: (page: ConfigurationPage) => void }) {
  const id = page.configuration.id;
  const queries = useQueryClient();
  const pick = useMutation({
    mutationFn: ({ key, other }: { key: string; other: boolean }) =>
      value(api.POST('/api/configurations/{id}/picks', { params: { path: { id } }, body: { key, other } })),
    onSuccess: onPage,
  });
  const merge = useMutation({
    mutationFn: async (from: number) => {
      await value(api.POST('/api/configurations/{id}/merge', { params: { path: { id: from } }, body: { into: id } }));
      return value(api.GET('/api/configurations/{id}', { params: { path: { id } } }));
    },
    onSuccess: (next) => {
      onPage(next);
      void changed(queries, 'scores');
    },
  });
  const doubts = page.facts.filter((f) => f.other !== undefined);
  const error = pick.error ?? merge.error;
  return (
    <div className="mb-3 empty:hidden">
      {page.mergedInto !== undefined && (
        <p className="border-l-2 border-gold py-1 pl-3">
          It turned out to be the same as another one; its sessions are{' '}
          <Link
            to="/shelf/configurations/$configurationId"
            params={{ configurationId: String(page.mergedInto) }}
            className="link"
          >
            there
          </Link>
          .
        </p>
      )}
      {doubts.map((f) => (
        <p key={f.key} className="flex flex-wrap items-center gap-3 border-l-2 border-gold py-1.5 pl-3">
          <span>
            <b className="font-semibold">{f.label}</b>: the device says {f.shown}, somebody typed {f.other}. Which is
            right?
          </span>
          <button data-changes className="button" onClick={() => pick.mutate({ key: f.key, other: false })}>
            {f.shown}, as detected
          </button>
          <button data-changes className="button" onClick={() => pick.mutate({ key: f.key, other: true })}>
            {f.other}, as typed
          </button>
        </p>
      ))}
      {page.contradictory.map((reason) => (
        <p key={reason} className="border-l-2 border-plum py-1 pl-3">
          {reason} Correct one of them.
        </p>
      ))}
      {page.mergedInto === undefined &&
        page.sameFacts.map((same) => (
          <p
            key={same.configuration.id}
            className="flex flex-wrap items-center gap-3 border-l-2 border-gold py-1.5 pl-3"
          >
            <span>
              <Link
                to="/shelf/configurations/$configurationId"
                params={{ configurationId: String(same.configuration.id) }}
                className="link"
              >
                {same.configuration.name}
              </Link>{' '}
              of {same.mergeable ? 'this unit' : same.configuration.unit} has exactly the same facts.
            </span>
            {same.mergeable && (
              <button
                data-changes
                className="button"
                disabled={merge.isPending}
                onClick={() => merge.mutate(same.configuration.id)}
              >
                Move its sessions here
              </button>
            )}
          </p>
        ))}
      {error && (
        <p role="alert" className="pl-3 text-plum">
          {error.message}
        </p>
      )}
    </div>
  );
}

function Facts({ page, onPage }: { page: ConfigurationPage; onPage: (page: ConfigurationPage) => void }) {
  const [correcting, setCorrecting] = useState<string | null>(null);
  const groups = [...new Set(page.facts.map((f) => f.group))];
  return (
    <div className="min-w-0">
      <div className="gap-x-8 sm:columns-2">
        {groups.map((group) => (
          <section key={group} className="mb-4 break-inside-avoid">
            <h2 className="border-b border-hair pb-0.5">{group}</h2>
            <UsedPart facts={page.facts} group={group} />
            <dl>
              {page.facts
                .filter((f) => f.group === group)
                .map((fact) => (
                  <div key={fact.key} className="flex flex-wrap gap-x-3 border-b border-hair-2 py-1">
                    <dt className="text-ink-2">{fact.label}</dt>
                    <dd className="ml-auto min-w-0 text-right break-words">
                      {page.sessions > 0 && correcting !== fact.key && page.mergedInto === undefined && (
                        <button
                          data-changes
                          className="small link mr-2 text-ink-3"
                          aria-label={`Correct ${fact.label}`}
                          onClick={() => setCorrecting(fact.key)}
                        >
                          correct
                        </button>
                      )}
                      {fact.shown} <span className="small text-ink-3">{SOURCES[fact.source]}</span>
                    </dd>
                    {correcting === fact.key && (
                      <dd className="w-full">
                        <CorrectionForm
                          page={page}
                          fact={fact}
                          onDone={(next) => {
                            setCorrecting(null);
                            if (next) onPage(next);
                          }}
                        />
                      </dd>
                    )}
                  </div>
                ))}
            </dl>
          </section>
        ))}
        {groups.length === 0 && <p className="text-ink-2">No fact is known of it.</p>}
      </div>
      {page.corrections.length > 0 && (
        <section className="mb-4">
          <h2 className="border-b border-hair pb-0.5">Corrections</h2>
          {page.corrections.map((r, i) => (
            <p key={i} className="border-b border-hair-2 py-1">
              {r.label}: {r.before ?? 'not known'} → <b className="font-semibold">{r.after ?? 'not known'}</b>{' '}
              <span className="small block">
                {r.reason}; {r.person}, {moment(r.at)}
              </span>
            </p>
          ))}
        </section>
      )}
    </div>
  );
}

/** Which one of several the tests used; where that is wrong, it is said in a copy or before the first session. */
function UsedPart({ facts, group }: { facts: ConfigurationPage['facts']; group: string }) {
  const all = parts(
    facts.map((f) => ({ key: f.key, text: f.shown })),
    group,
  );
  return all.length < 2 ? null : (
    <p className="small border-b border-hair-2 py-1">
      One of {all.length}: tests use {all[0]!.name}.
    </p>
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

function Name({ page, onPage }: { page: ConfigurationPage; onPage: (page: ConfigurationPage) => void }) {
  const { id, name, retired } = page.configuration;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const retire = useMutation({
    mutationFn: () =>
      value(api.PUT('/api/configurations/{id}/retired', { params: { path: { id } }, body: { retired: !retired } })),
    onSuccess: onPage,
  });
  const remove = useMutation({
    mutationFn: () => value(api.DELETE('/api/configurations/{id}', { params: { path: { id } } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['model'] });
      void navigate({ to: '/shelf/models/$modelId', params: { modelId: String(page.configuration.modelId) } });
    },
  });
  return (
    <section className="mt-6">
      <h2 className="border-b border-hair pb-0.5">This configuration</h2>
      <FieldLine
        field={{ name: 'name', label: 'Name', value: name, shown: name, example: '' }}
        onSaved={onPage}
        save={(seen, text) =>
          value(
            api.PUT('/api/configurations/{id}/name', {
              params: { path: { id } },
              body: { from: seen ?? '', to: text },
            }),
          )
        }
      />
      <p className="mt-2 flex gap-4">
        <button data-changes className="small link" onClick={() => retire.mutate()}>
          {retired ? 'Bring it back' : 'Retire it'}
        </button>
        {page.sessions === 0 && page.mergedInto === undefined && (
          <button data-changes className="small link" onClick={() => remove.mutate()}>
            Remove
          </button>
        )}
      </p>
      {(retire.error ?? remove.error) && (
        <p role="alert" className="text-plum">
          {(retire.error ?? remove.error)!.message}
        </p>
      )}
    </section>
  );
}

/** Facts changed in place, while nothing was measured. Where somebody else was faster, both states are shown. */
function Editing({
  page,
  entries,
  onDone,
}: {
  page: ConfigurationPage;
  entries: readonly Entry[];
  onDone: (page: ConfigurationPage | null) => void;
}) {
  const id = page.configuration.id;
  const draft = useDraft<FactRow[]>(`facts of configuration ${id}`, fromFacts(page.facts, entries));
  const { value: rows, set: setRows } = draft;
  const [seen, setSeen] = useState(page.fingerprint);
  const save = useMutation({
    mutationFn: (facts: ReturnType<typeof toBody>) =>
      value(api.PUT('/api/configurations/{id}/facts', { params: { path: { id } }, body: { seen, facts } })),
    onSuccess: (saved) => {
      draft.forget();
      onDone(saved);
    },
  });
  const clash = save.error instanceof Problem && save.error.code === 'changed-meanwhile' ? save.error.body : null;
  const theirs = clash?.facts?.filter((f) => rows.find((r) => r.key === f.key)?.kept !== f.shown) ?? [];
  const gone = clash ? rows.filter((r) => r.kept !== null && !clash.facts?.some((f) => f.key === r.key)) : [];
  function goOn() {
    setRows(
      rows
        .map((r) => {
          const now = clash?.facts?.find((f) => f.key === r.key)?.shown ?? null;
          return { ...r, kept: now, text: r.text.trim() === (r.kept ?? '') ? (now ?? '') : r.text };
        })
        .concat(
          fromFacts(
            (clash?.facts ?? [])
              .filter((f) => !rows.some((r) => r.key === f.key))
              .map((f) => ({
                key: f.key,
                label: entries.find((e) => e.key === f.key)?.label ?? f.key,
                group: entries.find((e) => e.key === f.key)?.group ?? 'Other',
                value: '',
                shown: f.shown,
                source: 'TYPED' as const,
              })),
            entries,
          ),
        ),
    );
    setSeen(clash?.fingerprint ?? seen);
    save.reset();
  }
  return (
    <FactEditor
      rows={rows}
      onRows={setRows}
      vocabulary={entries}
      saveWords="Save the facts"
      error={save.error}
      busy={save.isPending}
      onSave={(facts) => save.mutate(facts)}
      onCancel={() => onDone(null)}
    >
      <Opening
        title={page.configuration.name}
        sentence="Nothing was measured with it yet, so its facts can still be changed."
      />
      <DraftNote draft={draft} />
      {clash && (
        <div className="border-l-2 border-gold pl-3">
          {theirs.map((f) => (
            <p key={f.key}>
              {entries.find((e) => e.key === f.key)?.label ?? f.key}: theirs <b>{f.shown}</b>, yours{' '}
              {rows.find((r) => r.key === f.key)?.text || 'not there'}
            </p>
          ))}
          {gone.map((r) => (
            <p key={r.key}>
              {r.label}: they took it out, yours {r.text}
            </p>
          ))}
          <button type="button" className="button mt-1" onClick={goOn}>
            Take their changes in, and keep what I typed
          </button>
        </div>
      )}
    </FactEditor>
  );
}
