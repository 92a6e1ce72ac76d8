import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { useReader } from '../access/access-context.ts';
import { useMadePlan } from '../plans/use-made-plan.ts';
import { PlannedLinks } from '../plans/PlannedLinks.tsx';
import { named } from '../format/named.ts';
import { leastKnownSuite } from './line/order.ts';

const PERCENTS = [1, 3, 5] as const;
const RUNS = 3;

/** Where a line rests on a usual spread: asks once, for the whole suite, how repeatable it is. */
export function HowRepeatable({ comparison }: { comparison: Schemas['Comparison'] }) {
  const queries = useQueryClient();
  const reader = useReader();
  const suite = leastKnownSuite(comparison.rows);
  const state = useMutation({
    mutationFn: (percent: number | undefined) =>
      value(
        api.PUT('/api/suite-versions/{id}/repeatability', {
          params: { path: { id: suite!.id } },
          body: percent === undefined ? {} : { percent, source: 'said while comparing' },
        }),
      ),
    onSuccess: () => changed(queries, 'catalogue'),
  });
  if (suite === undefined || reader) return null;
  return (
    <aside
      aria-label="How repeatable"
      className="mb-2 flex flex-wrap items-baseline gap-x-3 border-l-[3px] border-gold bg-gold-soft px-3 py-2 text-[13.5px]"
    >
      <span>
        How repeatable is <b className="font-semibold">{suite.name}</b>? It has not been measured here; its noise is
        taken {suite.restsOn}.
      </span>
      <span className="flex flex-wrap gap-x-3">
        {PERCENTS.map((p) => (
          <button key={p} className="link" disabled={state.isPending} onClick={() => state.mutate(p)}>
            {p} %
          </button>
        ))}
        {suite.stated && (
          <button className="link" disabled={state.isPending} onClick={() => state.mutate(undefined)}>
            as is usual
          </button>
        )}
        <RunThreeTimes comparison={comparison} tests={suite.tests} name={suite.name} />
      </span>
      {state.isError && (
        <span role="alert" className="text-plum">
          {state.error.message}
        </span>
      )}
    </aside>
  );
}

/** The best answer is a measured one: three runs of one device tell it for all of them. */
function RunThreeTimes({
  comparison,
  tests,
  name,
}: {
  comparison: Schemas['Comparison'];
  tests: readonly number[];
  name: string;
}) {
  const make = useMadePlan(
    `How repeatable, ${name}, ${named(comparison.base)}`.slice(0, 120),
    RUNS,
    tests.map((testId) => ({ testId, nice: false })),
  );
  return make.data ? (
    <span role="status">
      planned: <PlannedLinks plan={make.data.id} what="it" />
    </span>
  ) : (
    <button className="link" disabled={make.isPending} onClick={() => make.mutate()}>
      run one device three times
    </button>
  );
}
