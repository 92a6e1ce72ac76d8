import { PlannedLinks } from '../plans/PlannedLinks.tsx';
import { useMadePlan } from '../plans/use-made-plan.ts';
import type { Trends } from './trends.ts';

const RUNS = 3;

/** Tests that lack a result at some step, or whose first to last is too close to call: what a plan would fill. */
export function missingTests(trends: Trends): { missing: number[]; unsure: number[] } {
  const steps = trends.steps.length;
  const given = trends.lines.filter((l) => l.metric.formula === undefined);
  const missing = new Set(given.filter((l) => l.points.length < steps).map((l) => l.metric.testId));
  const unsure = new Set(
    given
      .filter((l) => l.firstToLast?.verdict === 'CANNOT_TELL' && !missing.has(l.metric.testId))
      .map((l) => l.metric.testId),
  );
  return { missing: [...missing], unsure: [...unsure] };
}

export function PlanMissing({ trends }: { trends: Trends }) {
  const { missing, unsure } = missingTests(trends);
  const items = [...missing, ...unsure].map((testId) => ({ testId, nice: false }));
  const make = useMadePlan(`Trend of ${trends.maker} ${trends.model}`, RUNS, items);
  if (items.length === 0) return null;
  if (make.data)
    return (
      <p role="status" className="small mt-2">
        Planned as “{make.data.name}”. Carry it out at the steps that lack it:{' '}
        <PlannedLinks plan={make.data.id} what="it" />
      </p>
    );
  return (
    <p className="mt-2 print:hidden">
      <button className="button" disabled={make.isPending} onClick={() => make.mutate()}>
        Plan what is missing
      </button>{' '}
      <span className="small">
        {missing.length > 0 &&
          `${missing.length} ${missing.length === 1 ? 'test has' : 'tests have'} no result at some step`}
        {missing.length > 0 && unsure.length > 0 && '; '}
        {unsure.length > 0 && `${unsure.length} are too close to call, and more runs would tell`}.
      </span>
      {make.isError && (
        <span role="alert" className="text-plum">
          {make.error.message}
        </span>
      )}
    </p>
  );
}
