import type { Detected } from './detect.ts';

/** What the page reads by itself. @param detected null while it is still looking */
export function FoundOut({ detected }: { detected: Detected | null }) {
  return (
    <>
      <h2 className="mt-7">What this page found out</h2>
      {detected ? (
        <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-4">
          {detected.facts.map((fact) => (
            <div key={fact.key} className="col-span-2 grid grid-cols-subgrid border-b border-hair-2 py-1">
              <dt className="small">{fact.label}</dt>
              <dd className="text-right break-words">{fact.shown}</dd>
            </div>
          ))}
        </dl>
      ) : (
        <p role="status" className="small mt-1">
          Looking. The refresh rate takes a second.
        </p>
      )}
    </>
  );
}
