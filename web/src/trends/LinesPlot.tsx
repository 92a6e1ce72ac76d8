import { useState } from 'react';
import { logTicks } from '../chart/axis-ticks.ts';
import { markColour, markPath } from '../chart/Mark.tsx';
import { times } from '../format/ratio.ts';
import { apart, unbroken, withRoom } from './trends.ts';

export const LEFT = 62;
/** Room for the names at the ends of the lines. */
export const LABELS = 176;
/** Below this there is none: LineNames has them. */
export const NARROW = 620;
const [TOP, BOTTOM] = [22, 36];
/** Between the labels of two steps. */
const LEAST_BETWEEN = 64;
const GAP = 15;
const MOST_LETTERS = 26;
/** With more marks, only those of lines that are brought to the front are drawn. */
const MOST_MARKS = 14;
/** So many lines with a clear step are coloured by themselves. */
const MOST_COLOURED = 4;

export interface LinePoint {
  step: number;
  ratio: number;
  low?: number | undefined;
  high?: number | undefined;
  /** At least as good as this: drawn hollow. */
  held?: boolean;
}
export interface PlotLine {
  id: string;
  name: string;
  points: readonly LinePoint[];
  marks: readonly { step: number; up: boolean }[];
  /** The whole, to which the others add up: thick, with its interval as a band. */
  whole?: boolean;
  /** A device's own mark: its shape and colour, with an interval at each point. */
  slot?: number;
}

export function clearSteps(steps: readonly { to: number; ratio: number; marked: boolean }[]): PlotLine['marks'] {
  return steps.filter((s) => s.marked).map((s) => ({ step: s.to, up: s.ratio > 1 }));
}

/** Lines along steps as ratios on one logarithmic axis: better is up. Each can be brought to the front by its name. */
export function LinesPlot({
  lines,
  xs,
  steps,
  width,
  label,
  lit,
  onLit,
}: {
  lines: readonly PlotLine[];
  /** Where each step is, in px. */
  xs: readonly number[];
  /** What each step is called; of many only as many as there is room for. */
  steps: readonly string[];
  width: number;
  label: string;
  lit: string | undefined;
  onLit: (id: string | undefined) => void;
}) {
  const [over, setOver] = useState<string | undefined>();
  const front = over ?? lit;
  const narrow = width < NARROW;
  const height = Math.round(Math.min(460, Math.max(280, 140 + 16 * lines.length)));
  const right = width - (narrow ? 0 : LABELS) - 12;
  const drawn = lines.filter((d) => d.points.length > 0);
  const ratios = [
    1,
    ...drawn.flatMap((d) =>
      d.points.flatMap((p) =>
        d.whole || d.slot !== undefined ? [p.ratio, p.low ?? p.ratio, p.high ?? p.ratio] : p.ratio,
      ),
    ),
  ].filter((r) => r > 0 && Number.isFinite(r));
  const [low, high] = [Math.min(...ratios, 1 / 1.02) / 1.01, Math.max(...ratios, 1.02) * 1.01];
  const y = (ratio: number) =>
    TOP + (1 - Math.log(Math.min(high, Math.max(low, ratio)) / low) / Math.log(high / low)) * (height - TOP - BOTTOM);
  const at = (p: LinePoint) => `${xs[p.step]!.toFixed(1)} ${y(p.ratio).toFixed(1)}`;
  const ends = apart(
    drawn.map((d) => y(d.points.at(-1)!.ratio)),
    GAP,
    TOP,
    height - BOTTOM + 12,
  );
  const marked = drawn.filter((d) => !d.whole && d.marks.length > 0);
  const few = marked.reduce((sum, d) => sum + d.marks.length, 0) <= MOST_MARKS;
  const coloured = new Set(marked.length <= MOST_COLOURED ? marked.map((d) => d.id) : []);
  const isShown = (d: PlotLine) => d.whole || d.id === front || (front === undefined && coloured.has(d.id));
  const colourOf = (d: PlotLine) =>
    d.slot !== undefined ? markColour(d.slot) : d.whole ? 'var(--ink)' : isShown(d) ? 'var(--mark-3)' : 'var(--tick)';
  // The one in front is drawn last, and the whole before it.
  const rank = (d: PlotLine) => (d.id === front ? 2 : d.whole ? 1 : 0);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      className="block max-w-full"
      role="group"
      aria-label={label}
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
        {withRoom(xs, LEAST_BETWEEN).map((i) => (
          <text key={i} x={xs[i]} y={height - 8} textAnchor="middle">
            {steps[i]}
          </text>
        ))}
      </g>
      {drawn
        .filter((d) => d.whole)
        .map((d) => (
          <path key={d.id} d={bandOf(d.points, xs, y)} fill="var(--leaf-soft)" />
        ))}
      {[...drawn]
        .sort((a, b) => rank(a) - rank(b))
        .map((d) => {
          const parts = unbroken(d.points).map((part) => `M${part.map(at).join('L')}`);
          const colour = colourOf(d);
          const faint = d.slot !== undefined && front !== undefined && front !== d.id;
          return (
            <g
              key={d.id}
              opacity={faint ? 0.35 : 1}
              onPointerEnter={() => !d.whole && setOver(d.id)}
              onPointerLeave={() => setOver(undefined)}
            >
              <path d={parts.join('')} fill="none" stroke="transparent" strokeWidth={10} />
              {d.slot !== undefined && (
                // Another device was measured in between, this one was not.
                <path d={`M${d.points.map(at).join('L')}`} fill="none" stroke={colour} strokeDasharray="2 4" />
              )}
              <path
                d={parts.join('')}
                fill="none"
                stroke={colour}
                strokeWidth={d.whole ? 2.6 : isShown(d) || d.slot !== undefined ? 2 : 1.2}
              />
              {d.points.map((p) => (
                <g key={p.step}>
                  {d.slot !== undefined && p.low !== undefined && p.high !== undefined && (
                    <path
                      d={`M${xs[p.step]!.toFixed(1)} ${y(p.low).toFixed(1)}V${y(p.high).toFixed(1)}`}
                      stroke={colour}
                      strokeWidth={1.4}
                    />
                  )}
                  {d.slot === undefined ? (
                    <circle
                      cx={xs[p.step]}
                      cy={y(p.ratio)}
                      r={d.whole ? 4.2 : p.held ? 3 : 2.4}
                      fill={p.held ? 'var(--paper)' : colour}
                      stroke={p.held ? colour : 'none'}
                    >
                      {p.held && <title>{`${d.name}: at least, a display holds it`}</title>}
                    </circle>
                  ) : (
                    <path
                      d={markPath(d.slot, 4.5)}
                      transform={`translate(${at(p)})`}
                      fill={colour}
                      stroke="var(--paper)"
                      strokeWidth={1}
                    />
                  )}
                </g>
              ))}
              {d.marks.map((m) => {
                const p = d.points.find((o) => o.step === m.step);
                if (!p || !(few || isShown(d))) return null;
                const [mx, my] = [xs[m.step]!, y(p.ratio) + (m.up ? -14 : 14)];
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
          const on = isShown(d) || d.slot !== undefined;
          const name = (
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
                fill={on ? colourOf(d) : 'var(--ink-2)'}
              >
                {d.name.length > MOST_LETTERS ? `${d.name.slice(0, MOST_LETTERS - 1)}…` : d.name}
                <title>{d.name}</title>
              </text>
            </>
          );
          return d.whole ? (
            <g key={d.id}>{name}</g>
          ) : (
            <g
              key={d.id}
              role="button"
              tabIndex={0}
              aria-pressed={lit === d.id}
              style={{ cursor: 'pointer' }}
              onPointerEnter={() => setOver(d.id)}
              onPointerLeave={() => setOver(undefined)}
              onFocus={() => setOver(d.id)}
              onBlur={() => setOver(undefined)}
              onClick={() => onLit(lit === d.id ? undefined : d.id)}
              onKeyDown={(e) => {
                if (e.key !== 'Enter' && e.key !== ' ') return;
                e.preventDefault();
                e.stopPropagation();
                onLit(lit === d.id ? undefined : d.id);
              }}
            >
              {name}
            </g>
          );
        })}
    </svg>
  );
}

function bandOf(points: readonly LinePoint[], xs: readonly number[], y: (ratio: number) => number): string {
  const end = (p: LinePoint, ratio: number | undefined) =>
    `${xs[p.step]!.toFixed(1)} ${y(ratio ?? p.ratio).toFixed(1)}`;
  return unbroken(points)
    .filter((part) => part.length > 1)
    .map(
      (part) =>
        `M${part.map((p) => end(p, p.high)).join('L')}L${[...part]
          .reverse()
          .map((p) => end(p, p.low))
          .join('L')}Z`,
    )
    .join('');
}
