import { number, quantity } from '../format/format.ts';

const WIDTH = 390;
const HEIGHT = 96;
const LEFT = 6;
const BOTTOM = 16;

/** Values in the order they were taken, each a dot; a line where the one that counts is. */
export function DotPlot({
  values,
  unit,
  marked,
  name,
}: {
  values: readonly number[];
  unit: string;
  marked: number;
  name: string;
}) {
  const low = Math.min(...values, marked);
  const high = Math.max(...values, marked);
  const room = high - low || Math.abs(high) * 0.01 || 1;
  const x = (i: number) => LEFT + 4 + (values.length < 2 ? 0.5 : i / (values.length - 1)) * (WIDTH - 2 * LEFT - 80);
  const y = (v: number) => 8 + (1 - (v - low) / room) * (HEIGHT - BOTTOM - 12);
  return (
    <figure className="mt-1">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`${name}: ${number(low)} to ${quantity(high, unit)}`}
      >
        <line x1={LEFT} x2={WIDTH - 72} y1={y(marked)} y2={y(marked)} stroke="var(--gold)" strokeDasharray="3 3" />
        {values.map((v, i) => (
          <circle key={i} cx={x(i)} cy={y(v)} r={3.2} fill="var(--leaf)" />
        ))}
        <g fontSize={12} fill="var(--ink-3)">
          <text x={WIDTH - 68} y={y(high) + 4}>
            {number(high)}
          </text>
          {high !== low && (
            <text x={WIDTH - 68} y={y(low) + 4}>
              {number(low)}
            </text>
          )}
        </g>
      </svg>
      <details className="small">
        <summary>As a list</summary>
        {values.map((v) => number(v, 5)).join(', ')} {unit}
      </details>
    </figure>
  );
}
