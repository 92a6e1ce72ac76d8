import { number, quantity, unitName } from '../format/format.ts';
import { Axes } from './Axes.tsx';
import { baseOf, linearTicks, logTicks } from './axis-ticks.ts';

const WIDTH = 390;
const HEIGHT = 176;
const LEFT = 50;
const BOTTOM = 38;
const TOP = 20;

interface Point {
  x: number;
  y: number;
}

/** Many points: a curve on logarithmic axes, or frame times one after another. */
export function SeriesPlot({
  points,
  logarithmic,
  xUnit,
  yUnit,
  name,
}: {
  points: readonly Point[];
  logarithmic: boolean;
  xUnit: string;
  yUnit: string;
  name: string;
}) {
  const shown = thinned(points);
  const along = (values: readonly number[], v: number, log: boolean) => {
    const of = (n: number) => (log ? Math.log(n) : n);
    const low = of(Math.min(...values));
    const room = of(Math.max(...values)) - low || 1;
    return (of(v) - low) / room;
  };
  const xs = shown.map((p) => p.x);
  const ys = [...shown.map((p) => p.y), ...(logarithmic ? [] : [0])];
  const across = (v: number) => LEFT + along(xs, v, logarithmic) * (WIDTH - LEFT - 8);
  const up = (v: number) => TOP + 4 + (1 - along(ys, v, logarithmic)) * (HEIGHT - BOTTOM - TOP - 8);
  const at = (p: Point) => ({ x: across(p.x), y: up(p.y) });
  const line = shown.map((p, i) => `${i === 0 ? 'M' : 'L'}${at(p).x.toFixed(1)} ${at(p).y.toFixed(1)}`).join('');
  const binary = xUnit === 'B' || xUnit === 'By';
  const unit = binary ? 'B' : xUnit;
  const low = Math.min(...ys);
  const high = Math.max(...ys);
  return (
    <figure className="mt-1">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`${name}: ${points.length} points, ${number(low)} to ${number(high)} ${yUnit}`}
      >
        <Axes
          box={{ left: LEFT, right: WIDTH - 8, top: TOP, bottom: HEIGHT - BOTTOM }}
          x={{
            at: across,
            ticks: logarithmic
              ? logTicks(Math.min(...xs), Math.max(...xs), 4, baseOf(unit))
              : linearTicks(Math.min(...xs), Math.max(...xs), 5),
            words: (t) => (binary ? quantity(t, unit) : number(t, 4)),
            title: logarithmic ? (binary ? '' : `in ${xUnit}`) : `of ${points.length} ${xUnit}`,
          }}
          y={{
            at: up,
            ticks: logarithmic ? logTicks(low, high, 4) : linearTicks(low, high, 4),
            words: (t) => number(t, 3),
            title: unitName(yUnit),
          }}
        />
        <path d={line} fill="none" stroke="var(--leaf)" strokeWidth={1.4} />
        {logarithmic &&
          shown.length <= 60 &&
          shown.map((p, i) => <circle key={i} cx={at(p).x} cy={at(p).y} r={2.6} fill="var(--leaf)" />)}
      </svg>
      <details className="small">
        <summary>As a list</summary>
        <span className="block max-h-40 overflow-y-auto">
          {points
            .slice(0, 2000)
            .map((p) => (logarithmic ? `${number(p.x)}: ${number(p.y)}` : number(p.y)))
            .join(logarithmic ? '; ' : ', ')}
          {points.length > 2000 && ` and ${points.length - 2000} more`}
        </span>
      </details>
    </figure>
  );
}

const MOST = 800;

/** Of too many points to draw, the highest of each stretch: what is long is what matters. */
export function thinned(points: readonly Point[]): Point[] {
  if (points.length <= MOST) return [...points];
  const step = points.length / MOST;
  return Array.from({ length: MOST }, (_, i) =>
    points.slice(Math.floor(i * step), Math.floor((i + 1) * step)).reduce((a, b) => (b.y > a.y ? b : a)),
  );
}
