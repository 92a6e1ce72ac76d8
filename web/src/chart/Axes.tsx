/** One axis of a plot. */
export interface Axis {
  /** Where a value stands, in px. */
  at: (value: number) => number;
  ticks: readonly number[];
  words: (value: number) => string;
  /** What is measured, with its unit. */
  title: string;
}

/** Two axes with ticks and units around a plot, and faint lines through it. */
export function Axes({
  x,
  y,
  box,
}: {
  x: Axis;
  y: Axis;
  box: { left: number; right: number; top: number; bottom: number };
}) {
  return (
    <g fontSize={11.5} fill="var(--ink-3)">
      {x.ticks.map((t) => (
        <g key={t}>
          <path d={`M${x.at(t).toFixed(1)} ${box.top}V${box.bottom}`} stroke="var(--hair-2)" />
          <text x={x.at(t)} y={box.bottom + 15} textAnchor={x.at(t) > box.right - 14 ? 'end' : 'middle'}>
            {x.words(t)}
          </text>
        </g>
      ))}
      {y.ticks.map((t) => (
        <g key={t}>
          <path d={`M${box.left} ${y.at(t).toFixed(1)}H${box.right}`} stroke="var(--hair-2)" />
          <text x={box.left - 6} y={y.at(t) + 4} textAnchor="end">
            {y.words(t)}
          </text>
        </g>
      ))}
      <path d={`M${box.left} ${box.bottom}H${box.right}`} stroke="var(--hair)" />
      <text x={box.right} y={box.bottom + 31} textAnchor="end" fill="var(--ink-2)">
        {x.title}
      </text>
      <text x={box.left + 4} y={box.top - 4} fill="var(--ink-2)">
        {y.title}
      </text>
    </g>
  );
}
