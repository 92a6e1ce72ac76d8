import { number, quantity } from '../format/format.ts';

const WIDTH = 390;
const HEIGHT = 150;
const LEFT = 44;
const BOTTOM = 20;

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
  const at = (p: Point) => ({
    x: LEFT + along(xs, p.x, logarithmic) * (WIDTH - LEFT - 8),
    y: 8 + (1 - along(ys, p.y, logarithmic)) * (HEIGHT - BOTTOM - 16),
  });
  const line = shown.map((p, i) => `${i === 0 ? 'M' : 'L'}${at(p).x.toFixed(1)} ${at(p).y.toFixed(1)}`).join('');
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
        <line x1={LEFT} x2={WIDTH - 8} y1={HEIGHT - BOTTOM} y2={HEIGHT - BOTTOM} stroke="var(--hair)" />
        <path d={line} fill="none" stroke="var(--leaf)" strokeWidth={1.4} />
        {logarithmic &&
          shown.length <= 60 &&
          shown.map((p, i) => <circle key={i} cx={at(p).x} cy={at(p).y} r={2.6} fill="var(--leaf)" />)}
        <g fontSize={11} fill="var(--ink-3)">
          <text x={LEFT - 4} y={14} textAnchor="end">
            {number(high, 3)}
          </text>
          <text x={LEFT - 4} y={HEIGHT - BOTTOM - 4} textAnchor="end">
            {number(low, 3)}
          </text>
          <text x={LEFT} y={HEIGHT - 5}>
            {logarithmic ? quantity(Math.min(...xs), xUnit) : '1'}
          </text>
          <text x={WIDTH - 8} y={HEIGHT - 5} textAnchor="end">
            {logarithmic ? quantity(Math.max(...xs), xUnit) : `${points.length} ${xUnit}`}
          </text>
        </g>
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
