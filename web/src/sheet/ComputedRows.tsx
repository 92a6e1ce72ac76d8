import { direction, reading, unitName } from '../format/format.ts';
import type { SheetTest } from './places.ts';

/** What the server computes from the scores above. Nobody types here; where there is no value, it says why. */
export function ComputedRows({ tests }: { tests: readonly SheetTest[] }) {
  if (tests.length === 0) return null;
  return (
    <section className="mb-5">
      <h2 className="border-b border-hair pb-0.5">Computed from these</h2>
      {tests.map((t) => (
        <div key={t.testId} className="flex flex-wrap items-baseline gap-x-4 border-b border-hair-2 py-2">
          <span className="w-60 shrink-0 pl-1">
            <span className="font-semibold">{t.name}</span>
            <span className="small block">
              {unitName(t.metric.unit)}, {direction(t.metric.direction)}
            </span>
            <code className="block truncate text-[12px] text-ink-3" title={t.summary}>
              {t.summary}
            </code>
          </span>
          {t.runs.map((run) => (
            <span key={run.number} className={run.value === undefined ? 'small' : 'w-36 px-1 text-[16px]'}>
              {run.value === undefined
                ? (run.words ?? 'no value yet')
                : reading(run.value, t.metric, run.resolution ?? 0)}
            </span>
          ))}
        </div>
      ))}
    </section>
  );
}
