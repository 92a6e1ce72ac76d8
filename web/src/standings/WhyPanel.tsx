import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { ShareBar, signed } from '../chart/ShareBar.tsx';
import { times } from '../format/ratio.ts';
import { duration, index, number, percent } from '../format/format.ts';
import { PlannedLinks } from '../plans/PlannedLinks.tsx';
import { useMadePlan } from '../plans/use-made-plan.ts';
import { Panel } from '../ui/Panel.tsx';
import { Ready, Failed } from '../ui/states.tsx';
import { searchOf, type Ask } from './question/ask.ts';
import { named } from '../format/named.ts';

type Why = Schemas['Why'];
const RUNS = 3;
const SHOWN = 4;

/** The card of the same question; a card shows values as they were measured, and has no base. */
const cardSearchOf = (ask: Ask) => ({ ...searchOf(ask), per: undefined, base: undefined, typical: undefined });

/** Why a configuration stands where it does, and what is missing. */
export function WhyPanel({
  ask,
  configuration,
  onLeaveOut,
  onClose,
}: {
  ask: Ask;
  configuration: number | undefined;
  onLeaveOut: (key: string) => void;
  onClose: () => void;
}) {
  const why = useQuery({
    queryKey: ['why', ask, configuration],
    queryFn: () =>
      value(api.GET('/api/standings/why', { params: { query: { ...ask, configuration: configuration! } } })),
    enabled: configuration !== undefined,
  });
  return (
    <Panel
      open={configuration !== undefined}
      onClose={onClose}
      title={
        why.data
          ? `Why ${why.data.configuration.maker} ${why.data.configuration.model} stands there`
          : 'Why it stands there'
      }
      side
    >
      <Ready query={why} what="the reasons">
        {(data) => <Reasons why={data} ask={ask} onLeaveOut={onLeaveOut} />}
      </Ready>
    </Panel>
  );
}

function Reasons({ why, ask, onLeaveOut }: { why: Why; ask: Ask; onLeaveOut: (key: string) => void }) {
  const widest = Math.max(...why.parts.map((p) => Math.abs(p.percent)), 1e-9);
  const strong = why.tests.filter((t) => t.third === 'UPPER');
  const weak = why.tests.filter((t) => t.third === 'LOWER');
  const isBase = why.base?.id === why.configuration.id;
  const ordered = [...why.tests]
    .filter((t) => t.percent !== undefined)
    .sort((a, b) => Math.abs(b.percent!) - Math.abs(a.percent!));
  const against = why.base ? named(why.base) : 'the typical one';
  return (
    <div className="flex flex-col gap-4 pt-1">
      <p className="small -mt-1">
        {why.configuration.name} ·{' '}
        <Link
          to="/shelf/configurations/$configurationId/card"
          params={{ configurationId: String(why.configuration.id) }}
          search={cardSearchOf(ask)}
          className="link"
        >
          its report card
        </Link>
      </p>
      <p>
        <span className="font-title text-[30px]">{index(why.index)}</span>{' '}
        {isBase ? (
          'as the base'
        ) : (
          <>
            against {against} = 100: {signed(why.index - 100)} %, which comes from
          </>
        )}
      </p>
      {!isBase && (
        <table className="w-full" aria-label="Where it comes from">
          <tbody>
            {why.parts.map((p) => (
              <tr key={p.name}>
                <th scope="row" className="small pr-2 text-left font-normal whitespace-nowrap text-ink">
                  {p.name} <span className="text-ink-3">{percent(p.weight)}</span>
                </th>
                <td className="w-full min-w-[36px]">
                  <ShareBar share={p.percent / widest} />
                </td>
                <td className="pl-2 text-right text-[13px] whitespace-nowrap">{signed(p.percent)} %</td>
                <td className="small pl-3 whitespace-nowrap" title="This part by itself, with its 95 % interval">
                  {p.ratio === undefined
                    ? '–'
                    : `${times(p.ratio)}${p.low === undefined || p.high === undefined ? '' : ` (${number(p.low, 3)} to ${number(p.high, 3)})`}`}
                </td>
                <td className="pl-2 whitespace-nowrap">
                  {why.parts.length > 1 && (
                    <button className="link small" onClick={() => onLeaveOut(p.key)} aria-label={`exclude ${p.name}`}>
                      exclude
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <section>
        <h3>Strong in</h3>
        <p>
          {strong.length > 0
            ? strong.map((t) => t.test).join(', ')
            : 'Nothing in which it is surely in the upper third.'}
        </p>
      </section>
      <section>
        <h3>Weak in</h3>
        <p>
          {weak.length > 0 ? weak.map((t) => t.test).join(', ') : 'Nothing in which it is surely in the lower third.'}
        </p>
      </section>
      {!isBase && (
        <details open={ordered.length <= 2 * SHOWN}>
          <summary className="cursor-pointer font-title text-[15px]">Test by test</summary>
          <table className="data mt-1 w-full">
            <thead>
              <tr>
                <th>Test</th>
                <th className="text-right">{why.base ? 'To the base' : 'To the typical'}</th>
                <th className="text-right">Adds</th>
              </tr>
            </thead>
            <tbody>
              {ordered.map((t) => (
                <tr key={t.metricId}>
                  <td>
                    {t.test}
                    <span className="small block">
                      {t.part} · {percent(t.weight, 1)}
                    </span>
                  </td>
                  <td className="text-right">{t.ratio === undefined ? '–' : times(t.ratio)}</td>
                  <td className="text-right whitespace-nowrap">
                    {signed(t.percent!)} %
                    <button
                      className="link small block"
                      onClick={() => onLeaveOut(`test:${t.testId}`)}
                      aria-label={`exclude ${t.test}`}
                    >
                      exclude
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      {!isBase && why.base && ask.metric === undefined && ask.test === undefined && (
        <Directly why={why} base={why.base.id} ask={ask} />
      )}
      <Missing why={why} />
      {!isBase && why.base && (
        <Link
          to="/compare"
          search={{ ids: [why.base.id, why.configuration.id], base: why.base.id, ...pairOf(ask) }}
          className="link self-start"
        >
          Compare the two test by test, with how sure each difference is
        </Link>
      )}
    </div>
  );
}

/** What the same question is between two alone. */
function pairOf({ purpose, group, suite, without, take, per }: Ask) {
  return {
    ...(purpose !== undefined && { purpose }),
    ...(group !== undefined && { group }),
    ...(suite !== undefined && { suite }),
    ...(without !== undefined && { without }),
    ...(take !== undefined && { take }),
    ...(per !== undefined && { per }),
  };
}

/** Less of a difference is the rounding of an index. */
const SAME_NUMBER = 0.01;

/** Where the two held directly against each other give another number than the standing: both, and over what. */
function Directly({ why, base, ask }: { why: Why; base: number; ask: Ask }) {
  const query = { base, with: [why.configuration.id], ...pairOf(ask) };
  const direct = useQuery({
    queryKey: ['comparison', query],
    queryFn: () => value(api.GET('/api/compare', { params: { query } })),
    retry: false,
  });
  const overall = direct.data?.sides[0]?.overall;
  if (!overall || Math.abs(Math.log(overall.ratio / (why.index / 100))) <= SAME_NUMBER) return null;
  return (
    <p role="note" className="border-l-2 border-gold pl-2">
      Compared directly with the base it is {times(overall.ratio, 3)} over the {overall.shared}{' '}
      {overall.shared === 1 ? 'test' : 'tests'} that both have. The standing says {times(why.index / 100, 3)}, because
      it also takes what others tell of the two who have run other tests.
    </p>
  );
}

/** What it has no result for, how long that would take, and a plan with exactly that. */
function Missing({ why }: { why: Why }) {
  const tests = [...new Map(why.missing.map((m) => [m.testId, m])).values()];
  const make = useMadePlan(
    `Fill ${why.configuration.model}`,
    RUNS,
    tests.map((t) => ({ testId: t.testId, nice: false })),
  );
  if (tests.length === 0) return <p className="small">It has a result for everything that is ranked here.</p>;
  return (
    <section>
      <h3>Missing for full coverage</h3>
      <p>
        {tests
          .slice(0, 2 * SHOWN)
          .map((t) => t.test)
          .join(', ')}
        {tests.length > 2 * SHOWN && ` and ${tests.length - 2 * SHOWN} more`}.
      </p>
      <p className="small">
        {RUNS} runs each take about {duration(why.wholeMs)}
        {why.guessed > 0 && `; the time of ${why.guessed === tests.length ? 'each' : why.guessed} is a guess`}.
      </p>
      {make.data ? (
        <p role="status" className="small mt-1">
          Planned as “{make.data.name}”: <PlannedLinks plan={make.data.id} what="it" />
        </p>
      ) : (
        <button className="button mt-1" disabled={make.isPending} onClick={() => make.mutate()}>
          Plan the missing tests
        </button>
      )}
      <Failed of={make} />
    </section>
  );
}
