import { useQuery } from '@tanstack/react-query';
import { useEffect, type CSSProperties, type ReactNode } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { missingWords } from '../../format/verdict.ts';
import { index, quantity } from '../../format/format.ts';
import { lineName } from '../../compare/line/order.ts';
import { toldApart } from '../../format/named.ts';
import { barsOf, directionWords } from '../figure/bars.ts';
import { byWords, narrowedWords } from '../question/asked.ts';
import { missing } from '../question/number-words.ts';
import type { FigureQuestion } from '../question/questions.ts';
import { cellColour, cellWords, ratioRowsOf } from '../figure/ratio-rows.ts';
import { pageOf, PAGE, pagesOf, revealed, stepsOf, type Order } from './stage-order.ts';
import { compared, standingOf } from '../figure/answers.ts';

/** More bars could not be read from a sofa. */
export const ON_STAGE = 12;

/** What is shown until the numbers are there; where they do not come, the next key goes on. */
export function NotYet({ error, onSteps }: { error: Error | null; onSteps: (n: number) => void }) {
  const failed = error !== null;
  useEffect(() => {
    if (failed) onSteps(1);
  }, [failed, onSteps]);
  return <p className="stage-sub">{error?.message}</p>;
}

/** What is ranked, as it is said from the stage. */
function standingTitle(standings: Schemas['Standings']): string {
  return standings.metric ? standings.scope : standings.purpose;
}

export function StandingScene(props: {
  question: FigureQuestion & { of: 'standing' };
  step: number;
  order: Order;
  onSteps: (n: number) => void;
}) {
  const { question } = props;
  const asked = useQuery(standingOf(question));
  if (!asked.data) return <NotYet error={asked.error} onSteps={props.onSteps} />;
  const { metric } = asked.data;
  const aside = narrowedWords(asked.data, question);
  const rows = asked.data.rows.filter((r) => r.index !== undefined && r.status !== 'NOT_LINKED');
  const all = rows.map((r) => r.configuration);
  const most = Math.max(...rows.map((r) => r.high ?? r.index!), 1);
  return (
    <Rows
      {...props}
      title={standingTitle(asked.data)}
      sub={
        <>
          {metric ? (
            <>
              {metric.unit === '1' ? '' : `${metric.unit}, `}
              <b>{directionWords(metric)}</b>
              {metric.direction === 'LESS_IS_BETTER' && ', longer bars are better'}
            </>
          ) : (
            <>
              index, <b>more is better</b>
            </>
          )}
          {aside && ` · ${aside}`}
          {asked.data.base && ` · ${toldApart(asked.data.base, [...all, asked.data.base])} = 100`}
        </>
      }
      count={rows.length}
      row={(i) => {
        const r = rows[i]!;
        return (
          <BarRow
            name={toldApart(r.configuration, all)}
            highlight={r.configuration.id === question.highlight}
            length={(100 * r.index!) / most}
            interval={between(r, most)}
            text={metric && r.value !== undefined ? quantity(r.value, metric.unit) : index(r.index!, r.low, r.high)}
          />
        );
      }}
    />
  );
}

/** Where an interval stands, in hundredths of the longest bar. */
function between(of: { low?: number; high?: number }, most: number): [number, number] | undefined {
  return of.low === undefined || of.high === undefined
    ? undefined
    : [(100 * of.low) / most, (100 * (of.high - of.low)) / most];
}

/** One bar with its name and number. @param length in hundredths of the longest; absent where there is no number, which `none` says */
function BarRow(props: {
  name: string;
  detail?: string | undefined;
  highlight?: boolean | undefined;
  length?: number | undefined;
  interval?: [number, number] | undefined;
  none?: string | undefined;
  text: string;
}) {
  const { highlight, length, interval } = props;
  return (
    <>
      <span className="stage-name" data-highlight={highlight} data-none={length === undefined}>
        {props.name}
        {props.detail && <small>{props.detail}</small>}
      </span>
      <span className="stage-bar">
        {length === undefined ? (
          <em>{props.none}</em>
        ) : (
          <i style={{ '--long': `${length}%` } as CSSProperties} data-highlight={highlight} />
        )}
        {interval && <u style={{ left: `${interval[0]}%`, width: `${interval[1]}%` }} />}
      </span>
      <span className="stage-value" data-highlight={highlight}>
        {props.text}
      </span>
    </>
  );
}

function Rows({
  title,
  sub,
  count,
  step,
  order,
  onSteps,
  row,
}: {
  title: string;
  sub: ReactNode;
  count: number;
  step: number;
  order: Order;
  onSteps: (n: number) => void;
  row: (i: number) => ReactNode;
}) {
  const steps = stepsOf(count, order);
  useEffect(() => onSteps(steps), [steps, onSteps]);
  const isShown = revealed(count, step, order);
  const [page, pages] = [pageOf(count, step, order), pagesOf(count)];
  const here = Math.min(PAGE, count - page * PAGE);
  return (
    <>
      <h1 className="stage-title">{title}</h1>
      <p className="stage-sub">
        {sub}
        {pages > 1 && (
          <span>
            {' '}
            · {page + 1} of {pages}
          </span>
        )}
      </p>
      <ul className="stage-rows" style={{ '--rows': pages > 1 ? PAGE : count } as CSSProperties}>
        {Array.from({ length: here }, (_, n) => page * PAGE + n).map((i) => (
          <li key={i} className="stage-row" data-shown={isShown(i)} aria-hidden={!isShown(i)}>
            {row(i)}
          </li>
        ))}
      </ul>
    </>
  );
}

export function BarsScene(props: {
  question: FigureQuestion & { of: 'bars' };
  step: number;
  order: Order;
  onSteps: (n: number) => void;
}) {
  const { question } = props;
  const asked = useQuery({
    queryKey: ['values', question.configurations, [question.metric]],
    queryFn: () =>
      value(
        api.GET('/api/compare/values', {
          params: { query: { ids: question.configurations, metrics: [question.metric] } },
        }),
      ),
  });
  const found = asked.data && barsOf(asked.data, 'best', question.highlight);
  if (!found) return <NotYet error={asked.error} onSteps={props.onSteps} />;
  const { metric, bars } = found;
  const most = Math.max(...bars.flatMap((b) => [b.of.value ?? 0, b.of.high ?? 0]));
  return (
    <Rows
      {...props}
      title={metric.test}
      sub={
        <>
          {metric.unit === '1' ? '' : `${metric.unit}, `}
          <b>{directionWords(metric)}</b>
        </>
      }
      count={bars.length}
      row={(i) => {
        const b = bars[i]!;
        return (
          <BarRow
            name={b.title}
            detail={b.detail}
            highlight={b.highlight}
            length={b.of.value === undefined ? undefined : (100 * b.of.value) / most}
            interval={b.of.value === undefined ? undefined : between(b.of, most)}
            none={missing(b.of)}
            text={b.text}
          />
        );
      }}
    />
  );
}

export function RatiosScene(props: {
  question: FigureQuestion & { of: 'ratios' };
  step: number;
  order: Order;
  onSteps: (n: number) => void;
}) {
  const { question } = props;
  const asked = useQuery(compared(question.configuration, question.base, question.by));
  if (!asked.data) return <NotYet error={asked.error} onSteps={props.onSteps} />;
  const comparison = asked.data;
  const both = [comparison.sides[0]!.configuration, comparison.base];
  const all = ratioRowsOf(comparison, question.metrics);
  const sorted = [...all].sort((a, b) => (b.cells[0]!.ratio ?? 0) - (a.cells[0]!.ratio ?? 0));
  const narrowed = byWords(question.by, comparison);
  const most = Math.max(...sorted.map((r) => Math.abs(Math.log(r.cells[0]!.ratio ?? 1))), 0.05);
  return (
    <Rows
      {...props}
      title={toldApart(comparison.sides[0]!.configuration, both)}
      sub={
        <>
          against {toldApart(comparison.base, both)}, <b>right is better</b>
          {narrowed && ` · ${narrowed}`}
        </>
      }
      count={sorted.length}
      row={(i) => {
        const r = sorted[i]!;
        const cell = r.cells[0]!;
        const share = cell.ratio === undefined ? 0 : (50 * Math.log(cell.ratio)) / most;
        return (
          <>
            <span className="stage-name" data-none={cell.ratio === undefined}>
              {lineName(r, comparison.rows)}
              {cell.ratio !== undefined && cell.outReason !== undefined && <small>not in the overall</small>}
            </span>
            <span className="stage-bar stage-bar-middle">
              {cell.ratio === undefined ? (
                <em>{missingWords(cell)}</em>
              ) : (
                <i
                  style={
                    {
                      left: `${share < 0 ? 50 + share : 50}%`,
                      '--long': `${Math.abs(share)}%`,
                      background: cellColour(cell),
                    } as CSSProperties
                  }
                />
              )}
            </span>
            <span className="stage-value" style={{ color: cellColour(cell) }}>
              {cellWords(cell, r.metric, 1 + comparison.materiality / 100)}
            </span>
          </>
        );
      }}
    />
  );
}
