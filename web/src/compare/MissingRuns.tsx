import type { Schemas } from '../api/client.ts';
import { PlannedLinks } from '../plans/PlannedLinks.tsx';
import { useMadePlan } from '../plans/use-made-plan.ts';
import { missingRuns, missingSessions } from './line/order.ts';
import { named } from '../format/named.ts';
import { Failed } from '../ui/states.tsx';

const RUNS = 3;
type Comparison = Schemas['Comparison'];

/** Where lines are too close to call: a plan with exactly those tests, with the runs or the days that are missing. */
export function MissingRuns({ comparison }: { comparison: Comparison }) {
  const runs = missingRuns(comparison.rows);
  const sessions = missingSessions(comparison.rows);
  return (
    <>
      {runs.length > 0 && (
        <Missing
          comparison={comparison}
          about="More runs"
          label="Plan the missing runs"
          items={runs.map((m) => ({ testId: m.testId, runs: m.runs, nice: false }))}
          words={
            runs.length === 1
              ? `${runs[0]!.test} is too close to call; ${runs[0]!.runs} more ${runs[0]!.runs === 1 ? 'run' : 'runs'} may settle it.`
              : `${runs.length} tests are too close to call; ${runs.reduce((n, m) => n + m.runs, 0)} more runs may settle them.`
          }
        />
      )}
      {sessions.tests.length > 0 && (
        <Missing
          comparison={comparison}
          about="More days"
          label="Plan the missing sessions"
          days={sessions.days}
          items={sessions.tests.map((t) => ({ testId: t.testId, nice: false }))}
          words={`Days differ more than runs do: ${sessions.tests.length === 1 ? sessions.tests[0]!.test : `${sessions.tests.length} tests`} may be settled after ${sessions.days} more ${sessions.days === 1 ? 'session' : 'sessions'} of three runs, each on a day of its own.`}
        />
      )}
    </>
  );
}

function Missing({
  comparison,
  about,
  label,
  items,
  words,
  days,
}: {
  comparison: Comparison;
  about: string;
  label: string;
  items: Schemas['PlanItem'][];
  words: string;
  days?: number;
}) {
  const all = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const make = useMadePlan(
    `${about}, ${named(comparison.base)}`.slice(0, 120),
    RUNS,
    items,
    days !== undefined && days > 1 ? days : undefined,
  );
  if (make.data) {
    return (
      <p role="status" className="small mt-2">
        Planned as “{make.data.name}”. Carry it out with {all.map((c) => `${c.model} (${c.name})`).join(' and ')}:{' '}
        <PlannedLinks plan={make.data.id} what="them" />
      </p>
    );
  }
  return (
    <div className="mt-2">
      <button className="button" disabled={make.isPending} onClick={() => make.mutate()}>
        {label}
      </button>
      <p className="small mt-1">{words}</p>
      <Failed of={make} />
    </div>
  );
}
