import { Link } from '@tanstack/react-router';
import { type Schemas } from '../../api/client.ts';
import { markColour, markPath, MarkSign } from '../../chart/Mark.tsx';
import { day, mark, markReason, number, reading } from '../../format/format.ts';
import { takeWords } from '../../format/takes.ts';
import { useTable } from '../../shell/table-store.ts';
import { table } from '../../export/csv.ts';
import { readingsFigure } from './figure-readings.ts';
import { markOf } from '../../export/mark-of.ts';
import type { ComparedRow } from './order.ts';
import { PAINTS } from '../../export/page.ts';
import { slotsOf } from './slots.ts';
import { ExportMenu } from '../../export/ExportMenu.tsx';
import { named } from '../../format/named.ts';

type Metric = Schemas['ComparedMetric'];

const WIDTH = 640;

export function Readings({
  data,
  row,
  said,
  comparison,
}: {
  data: Metric;
  row: ComparedRow;
  /** To stand below a figure of them. */
  said: string;
  comparison: Schemas['Comparison'];
}) {
  const { metric } = data;
  const slot = slotsOf(
    useTable(),
    data.sides.map((o) => o.configurationId),
  );
  const nameOf = (id: number) => {
    const c =
      id === comparison.base.id
        ? comparison.base
        : comparison.sides.find((o) => o.configuration.id === id)!.configuration;
    return `${c.model}, ${c.name}`;
  };
  const own = data.sides.flatMap((o) => o.readings.map((r) => r.value));
  const near = scaleOf(metric, own);
  const all = scaleOf(metric, [...own, ...data.others.map((o) => o.value)]);
  return (
    <div className="mt-2 overflow-x-auto">
      <table className="w-full max-w-[980px]">
        <tbody>
          {data.sides.map((s, side) => {
            const c =
              s.configurationId === comparison.base.id
                ? comparison.base
                : comparison.sides.find((o) => o.configuration.id === s.configurationId)!.configuration;
            const at = slot(c.id);
            return (
              <tr key={side} className="border-b border-hair-2 align-middle">
                <th scope="row" className="w-52 py-1 pr-3 text-left font-normal">
                  <span className="flex items-center gap-1.5">
                    {at !== null && <MarkSign slot={at} size={13} />}
                    <span className="truncate font-semibold">{c.model}</span>
                    {side === 0 && <span className="small text-gold-ink">base</span>}
                  </span>
                  <span className="small block truncate">
                    {comparison.take === comparison.baseTake
                      ? c.name
                      : takeWords(side === 0 ? comparison.baseTake : comparison.take)}
                  </span>
                </th>
                <td>
                  <svg
                    viewBox={`0 0 ${WIDTH} 22`}
                    width="100%"
                    role="img"
                    aria-label={`${named(c)}: ${s.readings.map((r) => number(r.value)).join(', ') || 'no reading'}`}
                  >
                    <line x1={4} x2={WIDTH - 4} y1={11} y2={11} stroke="var(--hair)" />
                    {s.readings.map((r) => (
                      <path
                        key={r.id}
                        transform={`translate(${near.x(r.value).toFixed(1)} 11)`}
                        d={markPath(at, 4)}
                        fill={r.asideReason === undefined ? markColour(at) : 'none'}
                        stroke={markColour(at)}
                        strokeWidth={1}
                      >
                        <title>
                          {reading(r.value, metric, r.resolution)}
                          {r.asideReason !== undefined ? `, set aside: ${r.asideReason}` : ''}
                        </title>
                      </path>
                    ))}
                  </svg>
                </td>
              </tr>
            );
          })}
          <Ends left={near.left} right={near.right} metric={metric} middle="" />
          {data.others.length > 0 && (
            <>
              <tr className="align-middle">
                <th scope="row" className="small py-1 pr-3 text-left font-normal">
                  Among everything tested
                </th>
                <td>
                  <svg
                    viewBox={`0 0 ${WIDTH} 22`}
                    width="100%"
                    role="img"
                    aria-label={`Among ${data.others.length} other configurations`}
                  >
                    <line x1={4} x2={WIDTH - 4} y1={11} y2={11} stroke="var(--hair)" />
                    {data.others.map((o) => (
                      <path
                        key={o.configuration.id}
                        d={`M${all.x(o.value).toFixed(1)} 5v12`}
                        stroke="var(--tick)"
                        strokeWidth={1.6}
                      >
                        <title>
                          {o.configuration.maker} {o.configuration.model}, {o.configuration.name}:{' '}
                          {reading(o.value, metric)}
                        </title>
                      </path>
                    ))}
                    {row.cells.map(
                      (cell, i) =>
                        cell.value !== undefined && (
                          <path
                            key={i}
                            transform={`translate(${all.x(cell.value).toFixed(1)} 11)`}
                            d={markPath(slot(data.sides[i + 1]!.configurationId), 4.5)}
                            fill={markColour(slot(data.sides[i + 1]!.configurationId))}
                          />
                        ),
                    )}
                    {!comparison.per && row.value !== undefined && (
                      <path
                        transform={`translate(${all.x(row.value).toFixed(1)} 11)`}
                        d={markPath(slot(data.sides[0]!.configurationId), 4.5)}
                        fill={markColour(slot(data.sides[0]!.configurationId))}
                      />
                    )}
                  </svg>
                </td>
              </tr>
              <Ends
                left={all.left}
                right={all.right}
                metric={metric}
                middle={`${data.others.length} other ${data.others.length === 1 ? 'configuration' : 'configurations'} as ticks`}
              />
            </>
          )}
        </tbody>
      </table>
      <ExportMenu
        quiet
        name={`readings of ${metric.test}`}
        draw={(paint, font) =>
          readingsFigure(
            data,
            nameOf,
            data.sides.map((o) => markOf(slot(o.configurationId), paint)),
            (v) => (near.x(v) - 10) / (WIDTH - 20),
            [near.left, near.right],
            said,
            PAINTS[paint],
            font,
          )
        }
        csv={() =>
          table([
            [
              'configuration',
              `value in ${metric.unit}`,
              'session',
              'run',
              'finished',
              'set aside because',
              'conditions',
            ],
            ...data.sides.flatMap((o) =>
              o.readings.map((r) => [
                nameOf(o.configurationId),
                r.value,
                r.sessionId,
                r.runNumber,
                r.finishedAt,
                r.asideReason,
                r.conditions.join(', '),
              ]),
            ),
          ])
        }
      />
      <details className="mt-1">
        <summary className="small cursor-pointer">The single readings with their sessions</summary>
        <table className="data mt-1 w-full max-w-[980px]">
          <thead>
            <tr>
              <th>Configuration</th>
              <th className="text-right">Value</th>
              <th>Run</th>
              <th>Day</th>
              <th>Session</th>
              <th>Conditions</th>
              <th>Evidence</th>
              <th>Marks</th>
            </tr>
          </thead>
          <tbody>
            {data.sides.flatMap((s) =>
              s.readings.map((r) => {
                const c =
                  s.configurationId === comparison.base.id
                    ? comparison.base
                    : comparison.sides.find((o) => o.configuration.id === s.configurationId)!.configuration;
                return (
                  <tr key={r.id}>
                    <td>
                      {c.model}, {c.name}
                    </td>
                    <td className={`text-right ${r.asideReason === undefined ? '' : 'line-through'}`}>
                      <Link to="/ledger" search={{ reading: r.id }} className="link">
                        {reading(r.value, metric, r.resolution)}
                      </Link>
                    </td>
                    <td>{r.runNumber}</td>
                    <td>{day(r.finishedAt)}</td>
                    <td>
                      <Link to="/ledger" search={{ session: r.sessionId }} className="link">
                        in the ledger
                      </Link>
                    </td>
                    <td>{r.conditions.join(', ')}</td>
                    <td>{r.evidence > 0 ? `${r.evidence} ${r.evidence === 1 ? 'file' : 'files'}` : ''}</td>
                    <td>
                      {r.asideReason !== undefined
                        ? `set aside: ${r.asideReason}`
                        : r.marks.map((m) => (
                            <span key={m.kind} className="pill mr-1" data-tone="wait" title={markReason(m)}>
                              {mark(m.kind)}
                            </span>
                          ))}
                    </td>
                  </tr>
                );
              }),
            )}
          </tbody>
        </table>
      </details>
    </div>
  );
}

function Ends({
  left,
  right,
  metric,
  middle,
}: {
  left: number;
  right: number;
  metric: Metric['metric'];
  middle: string;
}) {
  return (
    <tr className="small text-ink-3">
      <td />
      <td>
        <span className="flex justify-between">
          <span>{reading(left, metric)}</span>
          <span>{middle}</span>
          <span>{reading(right, metric)}</span>
        </span>
      </td>
    </tr>
  );
}

/** From the worst on the left to the best on the right, as on every rail. */
function scaleOf(metric: Metric['metric'], values: readonly number[]) {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const logarithmic = metric.scale === 'RATIO' && low > 0 && high / low > 3;
  const of = (v: number) => (logarithmic ? Math.log(v) : v);
  const share = (v: number) => (high === low ? 0.5 : (of(v) - of(low)) / (of(high) - of(low)));
  const more = metric.direction === 'MORE_IS_BETTER';
  return {
    x: (v: number) => 10 + (more ? share(v) : 1 - share(v)) * (WIDTH - 20),
    left: more ? low : high,
    right: more ? high : low,
  };
}
