import type { DifferenceAxis, RatioAxis } from '../../chart/ratio-axis.ts';
import { isClear, tone, type Cell } from '../../format/verdict.ts';

const HEIGHT = 22;
const COLOURS = { gain: 'var(--leaf)', loss: 'var(--plum)', level: 'var(--ink-2)', unsure: 'var(--ink-3)' } as const;

/** The band of what does not matter, "same", and one ratio with its interval. Right is better. */
export function RatioMark({
  cell,
  axis,
  materiality,
  label,
}: {
  cell: Cell;
  axis: RatioAxis;
  materiality: number;
  label: string;
}) {
  if (cell.ratio === undefined) return null;
  if (cell.verdict === undefined) return <OpenMark cell={cell} axis={axis} materiality={materiality} label={label} />;
  const colour = COLOURS[tone(cell.verdict)];
  const { x } = axis;
  const counts = cell.outReason === undefined;
  return (
    <svg width={axis.width} height={HEIGHT} role="img" aria-label={label} className="block">
      <rect x={x(1 / materiality)} width={x(materiality) - x(1 / materiality)} height={HEIGHT} fill="var(--band)" />
      <line x1={x(1)} x2={x(1)} y2={HEIGHT} stroke="var(--tick)" strokeWidth={1.5} />
      {cell.low !== undefined && cell.high !== undefined && (
        <line
          x1={x(cell.low)}
          x2={x(cell.high)}
          y1={HEIGHT / 2}
          y2={HEIGHT / 2}
          stroke={colour}
          strokeWidth={2.4}
          strokeLinecap="round"
          strokeDasharray={cell.unmeasured ? '3 4.5' : undefined}
        />
      )}
      {axis.outside(cell.ratio) ? (
        <path
          d={cell.ratio > 1 ? `M${x(cell.ratio) - 4} 5l7 6l-7 6z` : `M${x(cell.ratio) + 4} 5l-7 6l7 6z`}
          fill={colour}
        />
      ) : (
        <circle
          cx={x(cell.ratio)}
          cy={HEIGHT / 2}
          r={4.6}
          fill={isClear(cell.verdict) && counts ? colour : 'var(--sheet)'}
          stroke={colour}
          strokeWidth={1.6}
        />
      )}
    </svg>
  );
}

/** Where a display holds a value: the ratio goes on from here, nobody knows how far. */
function OpenMark({ cell, axis, materiality, label }: Parameters<typeof RatioMark>[0]) {
  const { x } = axis;
  const at = x(cell.ratio!);
  const to = cell.bound === 'AT_LEAST' ? axis.width - 4 : cell.bound === 'AT_MOST' ? 4 : at;
  return (
    <svg width={axis.width} height={HEIGHT} role="img" aria-label={label} className="block">
      <rect x={x(1 / materiality)} width={x(materiality) - x(1 / materiality)} height={HEIGHT} fill="var(--band)" />
      <line x1={x(1)} x2={x(1)} y2={HEIGHT} stroke="var(--tick)" strokeWidth={1.5} />
      <line x1={at} x2={to} y1={HEIGHT / 2} y2={HEIGHT / 2} stroke="var(--ink-3)" strokeDasharray="2 3" />
      {to !== at && (
        <path d={to > at ? `M${to - 5} 6l5 5l-5 5` : `M${to + 5} 6l-5 5l5 5`} fill="none" stroke="var(--ink-3)" />
      )}
      <path d={`M${at} 4v14`} stroke="var(--ink-2)" strokeWidth={2.4} strokeLinecap="round" />
    </svg>
  );
}

/** A difference with its interval around none, right is better: on an axis of its own, because it is no ratio. */
export function DifferenceMark({ cell, axis, label }: { cell: Cell; axis: DifferenceAxis; label: string }) {
  if (cell.difference === undefined) return null;
  const { x } = axis;
  const colour =
    COLOURS[
      cell.reading === 'BETTER'
        ? 'gain'
        : cell.reading === 'WORSE'
          ? 'loss'
          : cell.reading === 'SAME'
            ? 'level'
            : 'unsure'
    ];
  return (
    <svg width={axis.width} height={HEIGHT} role="img" aria-label={label} className="block">
      <line x1={x(0)} x2={x(0)} y2={HEIGHT} stroke="var(--tick)" strokeWidth={1.5} strokeDasharray="2 2" />
      {cell.low !== undefined && cell.high !== undefined && (
        <line x1={x(cell.low)} x2={x(cell.high)} y1={HEIGHT / 2} y2={HEIGHT / 2} stroke={colour} strokeWidth={2.4} />
      )}
      <path
        d={`M${x(cell.difference)} 5l6 6l-6 6l-6 -6z`}
        fill={cell.reading === 'CANNOT_TELL' ? 'var(--sheet)' : colour}
        stroke={colour}
        strokeWidth={1.6}
      />
    </svg>
  );
}
