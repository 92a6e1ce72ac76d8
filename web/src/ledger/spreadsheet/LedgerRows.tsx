import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { sendFile } from '../../api/client.ts';
import { count } from '../../format/format.ts';
import { PastImports } from './PastImports.tsx';
import { progressInWords, refusedFile } from './progress.ts';
import { useImport, type ImportOutcome, type ImportState } from './use-import.ts';

/** A file in the ledger's own form: first what it would do, with every row that cannot be taken; then all of it or nothing. */
export function LedgerRows({ file }: { file: File }) {
  const [make, setMake] = useState(true);
  const job = useImport();
  const { follow } = job;
  const begin = useMutation({
    mutationFn: ({ making, store }: { making: boolean; store: boolean }) =>
      sendFile<ImportState>(`/api/ledger/import?make=${making}&store=${store}`, file),
    onSuccess: (state, { store }) => follow({ id: state.id, store }),
  });
  const { mutate } = begin;
  useEffect(() => mutate({ making: make, store: false }), [make, mutate]);
  const busy = begin.isPending || job.isUnderWay;
  const problem = begin.error?.message ?? job.problem;
  return (
    <section className="my-3 border-y border-hair bg-sheet px-4 py-3">
      <label className="flex items-baseline gap-2">
        <input
          type="checkbox"
          className="accent-leaf"
          disabled={busy}
          checked={make}
          onChange={(e) => {
            follow(null);
            setMake(e.target.checked);
          }}
        />
        Make models, suites and tests that are not known yet
      </label>
      {busy && (
        <p className="mt-2 flex items-center gap-4">
          <span role="status" className="text-ink-2">
            {progressInWords(job.state, file.name, job.isStoring)}
          </span>
          {job.state && job.state.of > 0 && (
            <progress
              className="w-48 accent-leaf"
              max={job.state.of}
              value={job.state.done}
              aria-label="How far it is"
            />
          )}
          {job.cancel && (
            <button className="small link" onClick={job.cancel}>
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
      {job.stored && (
        <p role="status" className="mt-2">
          Stored: {count(job.stored.readings)} readings and {count(job.stored.withoutValue)} runs without a value, in{' '}
          {job.stored.newSessions} sessions.{job.stored.there > 0 && ` ${count(job.stored.there)} were there already.`}
        </p>
      )}
      {job.stored?.importId !== undefined && <PastImports only={job.stored.importId} />}
      {job.seen && (
        <Preview outcome={job.seen} name={file.name} onStore={() => begin.mutate({ making: make, store: true })} />
      )}
    </section>
  );
}

/** What a file would do; nothing is stored yet. */
function Preview({ outcome: seen, name, onStore }: { outcome: ImportOutcome; name: string; onStore: () => void }) {
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
        seen.readings + seen.withoutValue > 0 && (
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
