import { useState } from 'react';
import { logTicks } from '../chart/axis-ticks.ts';
import { times } from '../compare/axis.ts';
import { apart, places, unbroken, type Line, type Trends } from './trends.ts';

export const LEFT = 62;
/** Room for the names at the ends of the lines. */
export const LABELS = 176;
/** Below this there is none. */
export const NARROW = 620;
const [TOP, BOTTOM] = [22, 18];
const GAP = 15;
const MOST_LETTERS = 26;
/** With more marks, only those of lines that are brought to the front are drawn. */
const MOST_MARKS = 14;
/** So many lines with a clear step are coloured by themselves. */
const MOST_COLOURED = 4;

interface Drawn {
  key: string;
  name: string;
  points: { step: number; ratio: number }[];
  marks: { step: number; up: boolean }[];
}

/** Every line as a ratio to the first that has it, on one logarithmic axis: better is up. */
export function TrendPlot({
  trends,
  width,
  toScale,
  lit,
  onLit,
}: {
  trends: Trends;
  width: number;
  toScale: boolean;
  lit: number | undefined;
  onLit: (metric: number | undefined) => void;
}) {
  const [over, setOver] = useState<number | undefined>();
  const front = over ?? lit;
  const narrow = width < NARROW;
  const labels = narrow ? 0 : LABELS;
  const height = Math.round(Math.min(440, Math.max(260, 120 + 16 * (trends.lines.length + 1))));
  const right = width - labels - 12;
  const xs = places(trends.steps, LEFT, right, toScale);
  const overall = trends.overall;
  const ratios = [
    1,
    ...trends.lines.flatMap((l) => l.points.map((p) => p.ratio)),
    ...(overall?.points.flatMap((p) => [p.low, p.high]) ?? []),
  ].filter((r) => r > 0 && Number.isFinite(r));
  const [low, high] = [Math.min(...ratios, 1 / 1.02) / 1.01, Math.max(...ratios, 1.02) * 1.01];
  const y = (ratio: number) =>
    TOP + (1 - Math.log(Math.min(high, Math.max(low, ratio)) / low) / Math.log(high / low)) * (height - TOP - BOTTOM);
  const drawn: (Drawn & { id: number | null })[] = [
    ...trends.lines.map((l) => ({ ...lineOf(l), id: l.metric.id })),
    ...(overall
      ? [
          {
            key: 'overall',
            id: null,
            name: 'Overall',
            points: overall.points,
            marks: overall.steps.filter((s) => s.marked).map((s) => ({ step: s.to, up: s.ratio > 1 })),
          },
        ]
      : []),
  ].filter((d) => d.points.length > 0);
  const ends = apart(
    drawn.map((d) => y(d.points.at(-1)!.ratio)),
    GAP,
    TOP,
    height - 6,
  );
  const path = (points: readonly { step: number; ratio: number }[]) =>
    unbroken(points)
      .map((part) =>
        part.map((p, i) => `${i === 0 ? 'M' : 'L'}${xs[p.step]!.toFixed(1)} ${y(p.ratio).toFixed(1)}`).join(''),
      )
      .join('');
  const band = overall
    ? unbroken(overall.points)
        .filter((part) => part.length > 1)
        .map(
          (part) =>
            `M${part.map((p) => `${xs[p.step]!.toFixed(1)} ${y(p.high).toFixed(1)}`).join('L')}L${[...part]
              .reverse()
              .map((p) => `${xs[p.step]!.toFixed(1)} ${y(p.low).toFixed(1)}`)
              .join('L')}Z`,
        )
        .join('')
    : '';
  // The one in front is drawn last, and the overall before it.
  const marked = trends.lines.filter((l) => l.steps.some((s) => s.marked));
  const few = marked.reduce((sum, l) => sum + l.steps.filter((s) => s.marked).length, 0) <= MOST_MARKS;
  const coloured = new Set(marked.length <= MOST_COLOURED ? marked.map((l) => l.metric.id) : []);
  const order = [...drawn].sort((a, b) => rank(a.id, front) - rank(b.id, front));
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      className="block max-w-full"
      role="group"
      aria-label={`${trends.lines.length} tests along ${trends.along.label}, each as a ratio to the first that has it; better is up. The table has the numbers.`}
    >
      <g fontSize={11.5} fill="var(--ink-3)">
        {logTicks(low, high, 7).map((t) => (
          <g key={t}>
            <path d={`M${LEFT} ${y(t).toFixed(1)}H${right}`} stroke="var(--hair-2)" />
            <text x={LEFT - 8} y={y(t) + 4} textAnchor="end">
              {Math.abs(t - 1) < 1e-9 ? 'same' : times(t)}
            </text>
          </g>
        ))}
        <path d={`M${LEFT} ${y(1).toFixed(1)}H${right}`} stroke="var(--tick)" />
      </g>
      <path d={band} fill="var(--leaf-soft)" />
      {order.map((d) => {
        const shown = d.id === null || d.id === front || (front === undefined && coloured.has(d.id));
        const colour = d.id === null ? 'var(--ink)' : shown ? 'var(--mark-3)' : 'var(--tick)';
        return (
          <g
            key={d.key}
            onPointerEnter={() => d.id !== null && setOver(d.id)}
            onPointerLeave={() => setOver(undefined)}
          >
            <path d={path(d.points)} fill="none" stroke="transparent" strokeWidth={10} />
            <path d={path(d.points)} fill="none" stroke={colour} strokeWidth={d.id === null ? 2.6 : shown ? 2 : 1.2} />
            {d.points.map((p) => (
              <circle key={p.step} cx={xs[p.step]} cy={y(p.ratio)} r={d.id === null ? 4.2 : 2.4} fill={colour} />
            ))}
            {d.marks.map((m) => {
              const at = d.points.find((p) => p.step === m.step);
              if (!at || !(few || shown)) return null;
              const [mx, my] = [xs[m.step]!, y(at.ratio) + (m.up ? -14 : 14)];
              return (
                <path
                  key={m.step}
                  d={m.up ? `M${mx - 5} ${my + 4}h10l-5 -8z` : `M${mx - 5} ${my - 4}h10l-5 8z`}
                  fill={m.up ? 'var(--leaf)' : 'var(--plum)'}
                >
                  <title>{`${d.name}: clear step, after correction`}</title>
                </path>
              );
            })}
          </g>
        );
      })}
      {!narrow &&
        drawn.map((d, i) => {
          const last = d.points.at(-1)!;
          const on = d.id === null || d.id === front || (front === undefined && coloured.has(d.id));
          const label = (
            <>
              <path
                d={`M${xs[last.step]! + 5} ${y(last.ratio).toFixed(1)}L${right + 10} ${ends[i]!.toFixed(1)}`}
                stroke="var(--hair)"
                fill="none"
              />
              <text
                x={right + 14}
                y={ends[i]! + 4}
                fontSize={12.5}
                fontWeight={on ? 600 : 400}
                fill={d.id === null ? 'var(--ink)' : on ? 'var(--mark-3)' : 'var(--ink-2)'}
              >
                {d.name.length > MOST_LETTERS ? `${d.name.slice(0, MOST_LETTERS - 1)}…` : d.name}
                <title>{d.name}</title>
              </text>
            </>
          );
          return d.id === null ? (
            <g key={d.key}>{label}</g>
          ) : (
            <g
              key={d.key}
              role="button"
              tabIndex={0}
              aria-pressed={lit === d.id}
              style={{ cursor: 'pointer' }}
              onPointerEnter={() => setOver(d.id!)}
              onPointerLeave={() => setOver(undefined)}
              onFocus={() => setOver(d.id!)}
              onBlur={() => setOver(undefined)}
              onClick={() => onLit(lit === d.id ? undefined : d.id!)}
              onKeyDown={(e) => {
                if (e.key !== 'Enter' && e.key !== ' ') return;
                e.preventDefault();
                e.stopPropagation();
                onLit(lit === d.id ? undefined : d.id!);
              }}
            >
              {label}
            </g>
          );
        })}
    </svg>
  );
}

function rank(id: number | null, front: number | undefined): number {
  return id === null ? 1 : id === front ? 2 : 0;
}

function lineOf(line: Line): Drawn {
  return {
    key: String(line.metric.id),
    name: line.metric.name,
    points: line.points,
    marks: line.steps.filter((s) => s.marked).map((s) => ({ step: s.to, up: s.ratio > 1 })),
  };
}
