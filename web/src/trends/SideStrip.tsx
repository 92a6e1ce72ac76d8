import { linearTicks } from '../chart/axis-ticks.ts';
import { number, reading, unitName } from '../format/format.ts';
import { LABELS, LEFT, NARROW } from './LinesPlot.tsx';
import { places, type Trends } from './trends.ts';

const HEIGHT = 76;

/** One test that has its own unit, on the same steps: never on a second axis of the plot. */
export function SideStrip({
  trends,
  side,
  width,
  toScale,
}: {
  trends: Trends;
  side: Trends['sides'][number];
  width: number;
  toScale: boolean;
}) {
  const narrow = width < NARROW;
  const right = width - (narrow ? 0 : LABELS) - 12;
  const xs = places(trends.steps, LEFT, right, toScale);
  const values = side.points.map((p) => p.value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = high - low || Math.abs(high) * 0.05 || 1;
  const y = (v: number) => HEIGHT - 12 - ((v - low + room * 0.25) / (room * 1.5)) * (HEIGHT - 26);
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      width={width}
      height={HEIGHT}
      className="mt-2 block max-w-full"
      role="img"
      aria-label={`${side.metric.name} in ${unitName(side.metric.unit)}: ${side.points.map((p) => `${trends.steps[p.step]!.label} ${number(p.value, 3)}`).join(', ')}`}
    >
      <g fontSize={11.5} fill="var(--ink-3)">
        <text x={LEFT - 8} y={12} textAnchor="end">
          {side.metric.kind === 'CHECK' ? '' : unitName(side.metric.unit)}
        </text>
        {side.metric.kind !== 'CHECK' &&
          linearTicks(low, high, 2).map((t) => (
            <text key={t} x={LEFT - 8} y={y(t) + 4} textAnchor="end">
              {number(t, 3)}
            </text>
          ))}
      </g>
      <path d={`M${LEFT} ${HEIGHT - 6}H${right}`} stroke="var(--hair)" />
      {side.points.map((p) => (
        <g key={p.step}>
          <path
            d={`M${xs[p.step]!.toFixed(1)} ${HEIGHT - 6}V${y(p.value).toFixed(1)}`}
            stroke="var(--gold)"
            strokeWidth={1.6}
          />
          <circle cx={xs[p.step]} cy={y(p.value)} r={3.6} fill="var(--gold)" />
          <text x={xs[p.step]! + 7} y={y(p.value) + 4} fontSize={11.5} fill="var(--ink-2)">
            {side.metric.kind === 'CHECK' ? reading(p.value, side.metric) : number(p.value, 3)}
          </text>
        </g>
      ))}
      {!narrow && (
        <text x={right + 14} y={13} fontSize={12.5} fill="var(--ink-2)">
          {side.metric.name}
        </text>
      )}
    </svg>
  );
}
