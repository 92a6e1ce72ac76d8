import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, sendFile, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { count } from '../format/format.ts';

type State = Schemas['ImportState'];
type Outcome = Schemas['ImportOutcome'];
const ASK_EVERY_MS = 400;

/** Takes a CSV file in: first what it would do, with every row that cannot be taken; then all of it or nothing. */
export function ImportPart({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const [make, setMake] = useState(false);
  const [job, setJob] = useState<{ id: string; store: boolean } | null>(null);
  const begin = useMutation({
    mutationFn: ({ from, making, store }: { from: File; making: boolean; store: boolean }) =>
      sendFile<State>(`/api/ledger/import?make=${making}&store=${store}`, from),
    onSuccess: (state, { store }) => setJob({ id: state.id, store }),
  });
  const state = useQuery({
    queryKey: ['import', job?.id],
    queryFn: () => value(api.GET('/api/ledger/import/{id}', { params: { path: { id: job!.id } } })),
    enabled: job !== null,
    refetchInterval: (query) => (isOver(query.state.data) ? false : ASK_EVERY_MS),
  });
  const cancel = useMutation({
    mutationFn: (id: string) => value(api.DELETE('/api/ledger/import/{id}', { params: { path: { id } } })),
    onSuccess: () => void state.refetch(),
  });
  const outcome = state.data?.outcome;
  const stored = job?.store ? outcome : undefined;
  useEffect(() => {
    if (stored) for (const source of ['scores', 'catalogue', 'shelf'] as const) void changed(queries, source);
  }, [stored, queries]);
  const choose = (from: File | undefined, making = make) => {
    if (!from) return;
    setFile(from);
    setJob(null);
    begin.mutate({ from, making, store: false });
  };
  const busy = begin.isPending || (job !== null && !isOver(state.data) && !state.isError);
  const problem = state.data?.problem ?? begin.error?.message ?? state.error?.message ?? cancel.error?.message;
  return (
    <section
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        choose(e.dataTransfer.files[0]);
      }}
    >
      <div className="flex flex-wrap items-baseline gap-4">
        <label className="button cursor-pointer focus-within:outline-2 focus-within:outline-gold">
          Choose a CSV file, or drop one here
          <input
            type="file"
            accept=".csv,text/csv"
            className="sr-only"
            disabled={busy}
            onChange={(e) => {
              choose(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-leaf"
            disabled={busy}
            checked={make}
            onChange={(e) => {
              setMake(e.target.checked);
              choose(file ?? undefined, e.target.checked);
            }}
          />
          Make models, suites and tests that are not known yet
        </label>
        <button className="small link ml-auto" onClick={onDone}>
          Close
        </button>
      </div>
      {busy && (
        <p className="mt-2 flex items-center gap-4">
          <span role="status" className="text-ink-2">
            {progressInWords(state.data, file?.name ?? '', job?.store ?? false)}
          </span>
          {state.data && state.data.of > 0 && (
            <progress
              className="w-48 accent-leaf"
              max={state.data.of}
              value={state.data.done}
              aria-label="How far it is"
            />
          )}
          {job && (
            <button className="small link" onClick={() => cancel.mutate(job.id)}>
              Cancel
            </button>
          )}
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 text-plum">
          {problem}
        </p>
      )}
      {stored && (
        <p role="status" className="mt-2">
          Stored: {count(stored.readings)} readings and {count(stored.withoutValue)} runs without a value, in{' '}
          {stored.newSessions} sessions.{stored.there > 0 && ` ${count(stored.there)} were there already.`}
        </p>
      )}
      {outcome && !job?.store && (
        <Preview
          outcome={outcome}
          name={file?.name ?? ''}
          onStore={file ? () => begin.mutate({ from: file, making: make, store: true }) : undefined}
        />
      )}
    </section>
  );
}

/** What a file would do; nothing is stored yet. */
function Preview({
  outcome: seen,
  name,
  onStore,
}: {
  outcome: Outcome;
  name: string;
  onStore: (() => void) | undefined;
}) {
  return (
    <>
      <p role="status" className="mt-2">
        {name}: {count(seen.rows)} rows. {count(seen.readings)} readings and {count(seen.withoutValue)} runs without a
        value would be stored, in {seen.newSessions} sessions
        {seen.there > 0 && <>; {count(seen.there)} are in the ledger already</>}
        {seen.computed > 0 && <>; {count(seen.computed)} are computed here from others and not taken</>}.
      </p>
      {seen.newModels.length > 0 && (
        <p className="small">
          New models: {seen.newModels.slice(0, 12).join(', ')}
          {seen.newModels.length > 12 && ` and ${seen.newModels.length - 12} more`}.
        </p>
      )}
      {seen.newSuites.length > 0 && (
        <p className="small">
          New suites: {seen.newSuites.join(', ')}, with {seen.newTests} tests.
        </p>
      )}
      {seen.newConfigurations > 0 && <p className="small">New configurations: {seen.newConfigurations}.</p>}
      {seen.ignored.length > 0 && (
        <p className="small">Columns that nothing is known about: {seen.ignored.join(', ')}.</p>
      )}
      {seen.refusedTotal > 0 ? (
        <>
          <p className="mt-2 text-plum">
            {count(seen.refusedTotal)} rows cannot be taken, so the file cannot be stored as it is.{' '}
            <a className="link" download="refused-rows.csv" href={refusedFile(seen.refused)}>
              Download{' '}
              {seen.refused.length < seen.refusedTotal ? `the first ${count(seen.refused.length)}` : 'the list'}
            </a>
          </p>
          <div className="max-h-64 overflow-y-auto">
            <table className="data w-full">
              <thead>
                <tr>
                  <th>Line</th>
                  <th>Column</th>
                  <th>Value</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                {seen.refused.slice(0, 100).map((r, i) => (
                  <tr key={i}>
                    <td>{r.line}</td>
                    <td>{r.column}</td>
                    <td className="max-w-48 truncate">{r.value}</td>
                    <td>{r.reason}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      ) : (
        seen.readings + seen.withoutValue > 0 &&
        onStore && (
          <p className="mt-3">
            <button className="button button-main" onClick={onStore}>
              Import all
            </button>
          </p>
        )
      )}
    </>
  );
}

function isOver(state: State | undefined): boolean {
  return state !== undefined && (state.outcome !== undefined || state.problem !== undefined);
}

export function progressInWords(
  state: Pick<State, 'step' | 'done' | 'of'> | undefined,
  name: string,
  store: boolean,
): string {
  const how = state && state.of > 0 ? `, ${count(state.done)} of ${count(state.of)}` : '';
  if (!state || state.step === 'READING')
    return `Reading ${name}${how}. ${store ? 'All of it is stored, or nothing.' : 'Nothing is stored yet.'}`;
  return state.step === 'STORING' ? `Storing its runs${how}` : `Bringing samples up to date${how}`;
}

/** The refused rows as a file of their own, every cell quoted. */
export function refusedFile(refused: readonly Schemas['RefusedCell'][]): string {
  const quoted = (text: string) => `"${(/^[=+@-]/.test(text) ? `'${text}` : text).replaceAll('"', '""')}"`;
  const rows = refused.map((r) => [String(r.line), r.column, r.value, r.reason].map(quoted).join(','));
  return `data:text/csv;charset=utf-8,${encodeURIComponent(['line,column,value,reason', ...rows].join('\r\n'))}`;
}
