import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { sendFile, type Schemas } from '../api/client.ts';
import { count } from '../format/format.ts';

type Outcome = Schemas['Outcome'];

/** Takes a CSV file in: first what it would do, with every row that cannot be taken; then all of it or nothing. */
export function ImportPart({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const [make, setMake] = useState(false);
  const look = useMutation({ mutationFn: ({ from, making }: { from: File; making: boolean }) => sendFile<Outcome>(`/api/ledger/preview/import?make=${making}`, from) });
  const store = useMutation({
    mutationFn: (from: File) => sendFile<Outcome>(`/api/ledger/import?make=${make}`, from),
    onSuccess: () => {
      for (const queryKey of [['ledger'], ['models'], ['tests'], ['standings'], ['makers']]) void queries.invalidateQueries({ queryKey });
    },
  });
  const choose = (from: File | undefined, making = make) => {
    if (!from) return;
    setFile(from);
    store.reset();
    look.mutate({ from, making });
  };
  const seen = look.data;
  const error = look.error ?? store.error;
  return (
    <section className="my-3 border-y border-hair bg-sheet px-4 py-3" onDragOver={(e) => e.preventDefault()} onDrop={(e) => { e.preventDefault(); choose(e.dataTransfer.files[0]); }}>
      <div className="flex flex-wrap items-baseline gap-4">
        <label className="button cursor-pointer focus-within:outline-2 focus-within:outline-gold">Choose a CSV file, or drop one here
          <input type="file" accept=".csv,text/csv" className="sr-only" onChange={(e) => { choose(e.target.files?.[0]); e.target.value = ''; }} />
        </label>
        <label className="flex items-baseline gap-2"><input type="checkbox" className="accent-leaf" checked={make} onChange={(e) => { setMake(e.target.checked); choose(file ?? undefined, e.target.checked); }} />
          Make models, suites and tests that are not known yet
        </label>
        <button className="small link ml-auto" onClick={onDone}>Close</button>
      </div>
      {look.isPending && <p role="status" className="mt-2 text-ink-2">Reading {file?.name}. Nothing is stored yet.</p>}
      {error && <p role="alert" className="mt-2 text-plum">{error.message}</p>}
      {store.data ? (
        <p role="status" className="mt-2">Stored: {count(store.data.readings)} readings and {count(store.data.withoutValue)} runs without a value, in {store.data.newSessions} sessions.{store.data.there > 0 && ` ${count(store.data.there)} were there already.`}</p>
      ) : seen && (
        <>
          <p role="status" className="mt-2">
            {file?.name}: {count(seen.rows)} rows. {count(seen.readings)} readings and {count(seen.withoutValue)} runs without a value would be stored, in {seen.newSessions} sessions
            {seen.there > 0 && <>; {count(seen.there)} are in the ledger already</>}.
          </p>
          {seen.newModels.length > 0 && <p className="small">New models: {seen.newModels.slice(0, 12).join(', ')}{seen.newModels.length > 12 && ` and ${seen.newModels.length - 12} more`}.</p>}
          {seen.newSuites.length > 0 && <p className="small">New suites: {seen.newSuites.join(', ')}, with {seen.newTests} tests.</p>}
          {seen.newConfigurations > 0 && <p className="small">New configurations: {seen.newConfigurations}.</p>}
          {seen.ignored.length > 0 && <p className="small">Columns that nothing is known about: {seen.ignored.join(', ')}.</p>}
          {seen.refusedTotal > 0 ? (
            <>
              <p className="mt-2 text-plum">{count(seen.refusedTotal)} rows cannot be taken, so the file cannot be stored as it is. <a className="link" download="refused-rows.csv" href={refusedFile(seen.refused)}>Download {seen.refused.length < seen.refusedTotal ? `the first ${count(seen.refused.length)}` : 'the list'}</a></p>
              <div className="max-h-64 overflow-y-auto">
                <table className="data w-full">
                  <thead><tr><th>Line</th><th>Column</th><th>Value</th><th>Why</th></tr></thead>
                  <tbody>{seen.refused.slice(0, 100).map((r, i) => <tr key={i}><td>{r.line}</td><td>{r.column}</td><td className="max-w-48 truncate">{r.value}</td><td>{r.reason}</td></tr>)}</tbody>
                </table>
              </div>
            </>
          ) : (
            seen.readings + seen.withoutValue > 0 && file && <p className="mt-3"><button className="button button-main" disabled={store.isPending} onClick={() => store.mutate(file)}>{store.isPending ? 'Storing' : 'Store all of it'}</button></p>
          )}
        </>
      )}
    </section>
  );
}

/** The refused rows as a file of their own, every cell quoted. */
export function refusedFile(refused: readonly Schemas['RefusedCell'][]): string {
  const quoted = (text: string) => `"${(/^[=+@-]/.test(text) ? `'${text}` : text).replaceAll('"', '""')}"`;
  const rows = refused.map((r) => [String(r.line), r.column, r.value, r.reason].map(quoted).join(','));
  return `data:text/csv;charset=utf-8,${encodeURIComponent(['line,column,value,reason', ...rows].join('\r\n'))}`;
}
