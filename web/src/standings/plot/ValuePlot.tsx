import { scaleLinear, scaleLog } from 'd3-scale';
import { useState } from 'react';
import type { Schemas } from '../../api/client.ts';
import { Axes } from '../../chart/Axes.tsx';
import { linearTicks, logTicks } from '../../chart/axis-ticks.ts';
import { markColour, markPath } from '../../chart/Mark.tsx';
import { table } from '../../export/csv.ts';
import { ExportFigure } from '../../export/ExportFigure.tsx';
import { index, number, quantity, unitName } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';
import { slotOf, tableActions, useTable } from '../../shell/table-store.ts';
import { useWidth } from '../../ui/use-width.ts';
import type { Standings } from '../question/ask.ts';
import { byDifferences } from '../question/held-against.ts';
import { costOf } from './cost.ts';
import { placeLabels } from './labels.ts';
import { ValueTable } from './ValueTable.tsx';

type Against = Schemas['Against'];
type Point = Against['points'][number];
const EDGE = { left: 54, right: 16, top: 24, bottom: 44 };

/**
 * Index against a quantity, each configuration a mark. With the arrow keys one goes from mark to mark, along the quantity.
 */
export function ValuePlot({
  data,
  standings,
  tried,
  onTry,
}: {
  data: Against;
  standings: Standings;
  /** Prices that are tried, by configuration. */
  tried: ReadonlyMap<number, number>;
  onTry: (id: number, amount: number | undefined) => void;
}) {
  const on = useTable();
  const rows = new Map(standings.rows.map((r) => [r.configuration.id, r]));
  const name = (id: number) => {
    const c = rows.get(id)!.configuration;
    return toldApart(c, all);
  };
  // One test by itself has values in its unit, which say more than an index.
  const one = standings.per === undefined ? standings.metric : undefined;
  const apart = byDifferences(one);
  const height = (p: Point) => p.value ?? p.index ?? 0;
  const points = data.points
    .filter((p) => rows.has(p.configurationId))
    .sort((a, b) => a.x - b.x || height(a) - height(b));
  const all = points.map((p) => rows.get(p.configurationId)!.configuration);
  const [at, setAt] = useState(-1);
  const [holder, measured] = useWidth<HTMLDivElement>(1180);
  const WIDTH = Math.max(280, measured);
  const HEIGHT = Math.round(Math.min(470, Math.max(300, WIDTH * 0.42)));
  const xs = points.map((p) => p.x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const wide = !data.date && low > 0 && high / low > 6;
  const pad = (high - low || Math.abs(high) || 1) * 0.06;
  const across = (
    wide ? scaleLog().domain([low / 1.12, high * 1.12]) : scaleLinear().domain([low - pad, high + pad])
  ).range([EDGE.left, WIDTH - EDGE.right]);
  const ys = points.map(height);
  const room = (Math.max(...ys) - Math.min(...ys) || 1) * 0.08;
  const [least, most] = apart
    ? [Math.min(...ys) - room, Math.max(...ys) + room]
    : [Math.min(...ys) / 1.08, Math.max(...ys) * 1.08];
  // Better is up, also where less is better.
  const up = (apart ? scaleLinear() : scaleLog())
    .domain(one?.direction === 'LESS_IS_BETTER' ? [most, least] : [least, most])
    .range([HEIGHT - EDGE.bottom, EDGE.top]);
  const line = points.filter((p) => p.frontier).sort((a, b) => a.x - b.x);
  const labels = placeLabels(
    points.map((p, i) => ({
      x: across(p.x),
      y: up(height(p)),
      text: name(p.configurationId),
      weight: (slotOf(on, p.configurationId) !== null ? 4 : 0) + (p.frontier ? 2 : 0) + i / -1e6,
    })),
    WIDTH,
    HEIGHT - EDGE.bottom,
  );
  const said = (x: number) =>
    data.date
      ? new Date(x * 86_400_000).toISOString().slice(0, 7)
      : data.quantity.unit === 'By'
        ? quantity(x, 'B')
        : number(x, 3);
  const unit =
    data.date || data.quantity.unit === '' || data.quantity.unit === '1' || data.quantity.unit === 'By'
      ? ''
      : ` in ${data.quantity.unit}`;
  const cost = costOf(data.quantity, one, ys);
  const words = (p: Point) =>
    `${named(rows.get(p.configurationId)!.configuration)}: ${data.quantity.label} ${p.shown || said(p.x)}, ${one ? quantity(height(p), one.unit) : `index ${index(height(p))}`}${cost ? `, ${cost.words(p.x, height(p))}` : ''}${p.frontier ? ', on the frontier of best value' : ''}`;
  const title = `${one?.name ?? 'Index'} against ${data.quantity.label}`;
  return (
    <div ref={holder}>
      <ExportFigure
        name={title}
        caption={`${title}, ${standings.scope}, ${standings.purpose}`}
        csv={() =>
          table([
            ['model', 'configuration', data.quantity.label + unit, one?.name ?? 'index', 'on the frontier'],
            ...points.map((p) => [
              `${rows.get(p.configurationId)!.configuration.maker} ${rows.get(p.configurationId)!.configuration.model}`,
              rows.get(p.configurationId)!.configuration.name,
              p.shown || p.x,
              height(p),
              p.frontier ? 'yes' : 'no',
            ]),
          ])
        }
      >
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          width="100%"
          role="group"
          aria-label={`${title}: ${points.length} configurations, ${line.length} on the frontier of best value. The table below has the numbers.`}
        >
          <Axes
            box={{ left: EDGE.left, right: WIDTH - EDGE.right, top: EDGE.top, bottom: HEIGHT - EDGE.bottom }}
            x={{
              at: across,
              ticks: wide
                ? logTicks(low / 1.12, high * 1.12, Math.floor(WIDTH / 90))
                : linearTicks(low - pad, high + pad, Math.floor(WIDTH / 90)),
              words: said,
              title: `${data.quantity.label}${unit}, ${data.lessIsBetter ? (data.date ? 'earlier to the left' : 'less to the left') : 'more is better'}`,
            }}
            y={{
              at: up,
              ticks: apart ? linearTicks(least, most, 7) : logTicks(least, most, 7),
              words: (t) => number(t, 3),
              title: one ? `${one.name}, ${unitName(one.unit)}` : 'Index',
            }}
          />
          <path
            d={line
              .map((p, i) => `${i === 0 ? 'M' : 'L'}${across(p.x).toFixed(1)} ${up(height(p)).toFixed(1)}`)
              .join('')}
            fill="none"
            stroke="var(--gold)"
            strokeWidth={1.8}
          />
          {points.map((p, i) => {
            const slot = slotOf(on, p.configurationId);
            return (
              <g
                key={p.configurationId}
                transform={`translate(${across(p.x).toFixed(1)} ${up(height(p)).toFixed(1)})`}
                className="point"
                role="button"
                aria-pressed={slot !== null}
                aria-label={words(p)}
                tabIndex={i === Math.max(at, 0) ? 0 : -1}
                onFocus={() => setAt(i)}
                onPointerEnter={() => setAt(i)}
                onClick={() => tableActions.toggle(p.configurationId)}
                onKeyDown={(e) => {
                  const step = STEPS[e.key];
                  if (step !== undefined) {
                    const marks = e.currentTarget.parentElement!.querySelectorAll<SVGElement>('.point');
                    marks[Math.min(marks.length - 1, Math.max(0, i + step))]?.focus();
                  } else if (e.key === 'Enter' || e.key === ' ') tableActions.toggle(p.configurationId);
                  else return;
                  e.preventDefault();
                  e.stopPropagation();
                }}
              >
                <circle r={12} fill="transparent" />
                {i === at && <circle r={9} fill="none" stroke="var(--leaf)" strokeWidth={1.6} />}
                <path
                  d={markPath(slot, slot === null ? 4 : 6)}
                  fill={slot === null && !p.frontier ? 'var(--tick)' : markColour(slot)}
                  stroke="var(--paper)"
                />
              </g>
            );
          })}
          {labels.map((l) => (
            <text
              key={l.of}
              x={l.x}
              y={l.y}
              textAnchor={l.anchor}
              fontSize={12.5}
              fill={points[l.of]!.frontier ? 'var(--ink)' : 'var(--ink-2)'}
              fontWeight={points[l.of]!.frontier ? 600 : 400}
            >
              {name(points[l.of]!.configurationId)}
            </text>
          ))}
        </svg>
      </ExportFigure>
      <p className="small min-h-[1.3em]">
        {points[at] ? words(points[at]) : 'Point at a mark, or go from one to the next with the arrow keys.'}
      </p>
      <ValueTable
        data={data}
        standings={standings}
        points={points}
        height={height}
        said={said}
        unit={unit}
        tried={tried}
        onTry={onTry}
      />
    </div>
  );
}

const STEPS: Record<string, number | undefined> = {
  ArrowRight: 1,
  ArrowDown: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
  Home: -Infinity,
  End: Infinity,
};
