import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useId, useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { PublishedSign } from '../../chart/PublishedSign.tsx';
import { count, day, reading } from '../../format/format.ts';
import { Ready } from '../../ui/states.tsx';

type Row = Schemas['ReferenceRow'];

/** Scores that others published for a model: shown with their source, never ranked or averaged with own readings. */
export function ReferencesPart({ modelId }: { modelId: number }) {
  const queries = useQueryClient();
  const key = ['model', modelId, 'references'];
  const path = { params: { path: { id: modelId } } };
  const rows = useQuery({ queryKey: key, queryFn: () => value(api.GET('/api/models/{id}/references', path)) });
  const [adding, setAdding] = useState(false);
  const [gone, setGone] = useState<Row | null>(null);
  const done = () => {
    void changed(queries, 'scores');
  };
  const remove = useMutation({
    mutationFn: (r: Row) => value(api.DELETE('/api/references/{id}', { params: { path: { id: r.id } } })),
    onSuccess: (_none, r) => {
      setGone(r);
      done();
    },
  });
  const restore = useMutation({
    mutationFn: (r: Row) => value(api.POST('/api/references/{id}/restore', { params: { path: { id: r.id } } })),
    onSuccess: () => {
      setGone(null);
      done();
    },
  });
  return (
    <section className="mt-7">
      <div className="flex items-baseline border-b border-hair pb-0.5">
        <h2>Published elsewhere</h2>
        <button data-changes className="small link ml-auto" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          {adding ? 'cancel' : 'add a published score'}
        </button>
      </div>
      {adding && (
        <NewReference
          modelId={modelId}
          onDone={() => {
            setAdding(false);
            done();
          }}
        />
      )}
      <Ready query={rows} what="published scores">
        {(list) =>
          list.length === 0 ? (
            !adding && (
              <p className="small py-2">
                None is noted. They are shown beside own readings and never counted with them.
              </p>
            )
          ) : (
            <ul>
              {list.map((r) => (
                <li key={r.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-1.5">
                  <PublishedSign />
                  <Link to="/standings" search={{ metric: r.metric.id }} className="hover:underline">
                    {r.metric.name}
                  </Link>
                  <b className="font-semibold">{reading(r.value, r.metric, r.resolution)}</b>
                  <span className="small ml-auto">
                    {r.source}
                    {r.publishedOn && `, ${day(r.publishedOn)}`}
                    {r.results !== undefined && `, from ${count(r.results)} ${r.results === 1 ? 'result' : 'results'}`}
                  </span>
                  <button
                    data-changes
                    className="small link"
                    aria-label={`Remove the published score of ${r.metric.name}`}
                    onClick={() => remove.mutate(r)}
                  >
                    remove
                  </button>
                </li>
              ))}
            </ul>
          )
        }
      </Ready>
      {gone && (
        <p role="status" className="small">
          The published score of {gone.metric.name} was removed.{' '}
          <button data-changes className="link" onClick={() => restore.mutate(gone)}>
            Undo
          </button>
        </p>
      )}
      {(remove.error ?? restore.error) && (
        <p role="alert" className="text-plum">
          {(remove.error ?? restore.error)!.message}
        </p>
      )}
    </section>
  );
}

function NewReference({ modelId, onDone }: { modelId: number; onDone: () => void }) {
  const listId = useId();
  const draft = useDraft(`published score of ${modelId}`, {
    about: '',
    text: '',
    source: '',
    on: '',
    results: '',
  });
  const [about, setAbout] = draft.field('about');
  const [text, setText] = draft.field('text');
  const [source, setSource] = draft.field('source');
  const [on, setOn] = draft.field('on');
  const [results, setResults] = draft.field('results');
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const metrics = (tests.data ?? [])
    .filter((t) => !t.retired)
    .flatMap((t) => t.metrics.map((m) => ({ ...m, label: `${m.name} (${t.suite} ${t.version})` })));
  const metric = metrics.find((m) => m.label === about);
  const add = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/models/{id}/references', {
          params: { path: { id: modelId } },
          body: {
            metricId: metric!.id,
            text,
            source,
            ...(on ? { publishedOn: on } : {}),
            ...(results.trim() ? { results: Number(results) } : {}),
          },
        }),
      ),
    onSuccess: () => {
      draft.forget();
      onDone();
    },
  });
  return (
    <form
      className="grid max-w-[760px] grid-cols-1 gap-x-5 gap-y-2 py-2 sm:grid-cols-6"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <label className="sm:col-span-3">
        <span className="small">Test</span>
        <input
          className="field"
          list={listId}
          required
          autoFocus
          value={about}
          maxLength={260}
          onChange={(e) => setAbout(e.target.value)}
        />
        <datalist id={listId}>
          {metrics.map((m) => (
            <option key={m.id} value={m.label} />
          ))}
        </datalist>
      </label>
      <label className="sm:col-span-3">
        <span className="small">Value{metric && metric.unit !== '1' ? ` in ${metric.unit}` : ''}</span>
        <input className="field" required maxLength={200} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <label className="sm:col-span-3">
        <span className="small">Published where</span>
        <input className="field" required maxLength={300} value={source} onChange={(e) => setSource(e.target.value)} />
      </label>
      <label className="sm:col-span-2">
        <span className="small">When</span>
        <input className="field" type="date" value={on} onChange={(e) => setOn(e.target.value)} />
      </label>
      <label>
        <span className="small">From results</span>
        <input
          className="field"
          inputMode="numeric"
          pattern="[0-9]*"
          placeholder="many"
          value={results}
          onChange={(e) => setResults(e.target.value)}
        />
      </label>
      {about !== '' && !metric && <p className="small sm:col-span-6">Choose a test from the list.</p>}
      <p className="flex gap-3 sm:col-span-6">
        <button className="button button-main" disabled={!metric || add.isPending}>
          Save
        </button>
        {add.isError && (
          <span role="alert" className="text-plum">
            {add.error.message}
          </span>
        )}
      </p>
    </form>
  );
}
