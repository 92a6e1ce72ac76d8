import { markColour, markPath } from '../chart/Mark.tsx';
import { times } from '../format/ratio.ts';
import type { PlotLine } from './LinesPlot.tsx';

/** The names of the lines where a plot has no room for them, and how far each has come at its last step. */
export function LineNames({
  lines,
  lit,
  onLit,
}: {
  lines: readonly PlotLine[];
  lit: string | undefined;
  onLit: (id: string | undefined) => void;
}) {
  return (
    <ul className="my-1" aria-label="Lines">
      {lines
        .filter((d) => d.points.length > 0)
        .sort((a, b) => b.points.at(-1)!.ratio - a.points.at(-1)!.ratio)
        .map((d) => (
          <li key={d.id} className="flex border-b border-hair-2">
            {d.whole ? (
              <b className="min-w-0 flex-1 py-1 font-semibold">{d.name}</b>
            ) : (
              <button
                className="said flex min-w-0 flex-1 items-center gap-2 py-1 text-left aria-pressed:font-semibold aria-pressed:text-(--mark-3)"
                aria-pressed={lit === d.id}
                onClick={() => onLit(lit === d.id ? undefined : d.id)}
              >
                {d.slot !== undefined && (
                  <svg width={14} height={14} viewBox="-7 -7 14 14" aria-hidden="true" className="shrink-0">
                    <path d={markPath(d.slot, 4.5)} fill={markColour(d.slot)} />
                  </svg>
                )}
                {d.name}
              </button>
            )}
            <span className="py-1 pl-2">{times(d.points.at(-1)!.ratio)}</span>
          </li>
        ))}
    </ul>
  );
}
