import type { Schemas } from '../api/client.ts';
import { PlannedLinks } from '../plans/PlannedLinks.tsx';
import { useMadePlan } from '../plans/use-made-plan.ts';
import { missingRuns } from './order.ts';

const RUNS = 3;

/** Where lines cannot be told: a plan with exactly those tests, each with as many runs as are missing. */
export function MissingRuns({ comparison }: { comparison: Schemas['Comparison'] }) {
  const missing = missingRuns(comparison.rows);
  const named = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const make = useMadePlan(
    `More runs, ${comparison.base.model}`,
    RUNS,
    missing.map((m) => ({ testId: m.testId, runs: m.runs, nice: false })),
  );
  if (missing.length === 0) return null;
  if (make.data) {
    return (
      <p role="status" className="small mt-2">
        Planned as “{make.data.name}”. Carry it out with {named.map((c) => `${c.model} (${c.name})`).join(' and ')}:{' '}
        <PlannedLinks plan={make.data.id} what="them" />
      </p>
    );
  }
  return (
    <div className="mt-2">
      <button className="button" disabled={make.isPending} onClick={() => make.mutate()}>
        Plan the missing runs
      </button>
      <p className="small mt-1">
        {missing.length === 1
          ? `${missing[0]!.test} cannot be told yet; ${missing[0]!.runs} more ${missing[0]!.runs === 1 ? 'run' : 'runs'} may settle it.`
          : `${missing.length} tests cannot be told yet; ${missing.reduce((n, m) => n + m.runs, 0)} more runs may settle them.`}
      </p>
      {make.isError && (
        <p role="alert" className="text-plum">
          {make.error.message}
        </p>
      )}
    </div>
  );
}
