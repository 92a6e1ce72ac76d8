import { memo } from 'react';
import { markColour, markPath } from './Mark.tsx';

/** Maps merits to pixels, right is better. */
export interface RailScale {
  x: (merit: number) => number;
  width: number;
}

const EDGE = 12;

/** A scale over all merits of a rail. One value alone sits in the middle. */
export function railScale(merits: readonly number[], width: number): RailScale {
  const low = Math.min(...merits);
  const high = Math.max(...merits);
  const span = high - low;
  const room = Math.max(1, width - 2 * EDGE);
  return {
    width,
    x: (merit) => (merits.length === 0 || span === 0 ? width / 2 : EDGE + ((merit - low) / span) * room),
  };
}

/** All ticks of a rail as one path: a shelf has thousands, and every row shows them. Those on the same half pixel are one. */
export function tickPath(merits: readonly number[], scale: RailScale, half: number): string {
  return [...new Set(merits.map((m) => Math.round(2 * scale.x(m)) / 2))]
    .map((x) => `M${x.toFixed(1)} ${-half}v${2 * half}`)
    .join('');
}

interface RailProps {
  scale: RailScale;
  /** From tickPath, the same for all rows. */
  ticks: string;
  height: number;
  merit: number;
  low?: number | undefined;
  high?: number | undefined;
  /** Where the base is; a dotted line. */
  base?: number | undefined;
  slot: number | null;
  /** Not placed: drawn hollow. */
  hollow?: boolean;
  /** Lit up from the table. */
  lit?: boolean;
  radius?: number;
  label: string;
  /** What others published, from tickPath: beside the ticks, below the line. */
  published?: string | undefined;
  /** Where the named tick is. */
  named?: number | undefined;
}

/** One configuration among everything tested: faint ticks for all, a mark with its interval for this one. */
export const Rail = memo(function Rail({
  scale,
  ticks,
  height,
  merit,
  low,
  high,
  base,
  slot,
  hollow = false,
  lit = false,
  radius = 4.5,
  label,
  published,
  named,
}: RailProps) {
  const { x, width } = scale;
  const middle = height / 2;
  const colour = markColour(slot);
  const clamp = (v: number) => Math.min(width - 2, Math.max(2, v));
  return (
    <svg width={width} height={height} role="img" aria-label={label} className="block">
      <g transform={`translate(0 ${middle})`}>
        <line x1={4} x2={width - 4} stroke="var(--hair)" />
        <path d={ticks} stroke="var(--tick)" />
        {published !== undefined && (
          <path d={published} transform="translate(0 8)" stroke="var(--gold)" strokeWidth={1.6} />
        )}
        {named !== undefined && <path d={`M${named.toFixed(1)} -7v14`} stroke="var(--gold)" strokeWidth={2.4} />}
        {base !== undefined && (
          <line
            x1={x(base)}
            x2={x(base)}
            y1={-middle + 2}
            y2={middle - 2}
            stroke="var(--ink-3)"
            strokeDasharray="2 2"
          />
        )}
        {low !== undefined && high !== undefined && (
          <line x1={clamp(x(low))} x2={clamp(x(high))} stroke={colour} strokeWidth={2.6} strokeLinecap="round" />
        )}
        <g transform={`translate(${x(merit).toFixed(1)} 0)`}>
          {lit && <circle r={radius + 5} fill="none" stroke={colour} strokeWidth={1.5} />}
          <path
            d={markPath(slot, radius)}
            fill={hollow ? 'var(--sheet)' : colour}
            stroke={hollow ? colour : 'var(--paper)'}
            strokeWidth={hollow ? 1.5 : 1}
          />
        </g>
      </g>
    </svg>
  );
});
