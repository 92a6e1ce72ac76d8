/** A line in a line of text: where something went, and no more than that. Up is better. */
export function SmallLine({
  points,
  label,
  width = 132,
  height = 30,
}: {
  /** Above 1 is better than the first; x counts steps. */
  points: readonly { x: number; ratio: number; low?: number; high?: number }[];
  label: string;
  width?: number;
  height?: number;
}) {
  const steps = points.map((p) => p.x);
  const logs = points.flatMap((p) => [p.low ?? p.ratio, p.high ?? p.ratio]).map(Math.log);
  const [first, last] = [Math.min(...steps), Math.max(...steps)];
  // Three per cent is the least that fills the height, so that noise does not look like a change.
  const half = Math.max(0.03, ...logs.map(Math.abs));
  const x = (step: number) => 4 + ((step - first) / Math.max(1, last - first)) * (width - 8);
  const y = (ratio: number) => height / 2 - (Math.log(ratio) / half) * (height / 2 - 4);
  return (
    <svg width={width} height={height} role="img" aria-label={label} className="shrink-0">
      <line x1={0} x2={width} y1={height / 2} y2={height / 2} stroke="var(--hair)" />
      {points.map((p) => (
        <line
          key={p.x}
          x1={x(p.x)}
          x2={x(p.x)}
          y1={y(p.low ?? p.ratio)}
          y2={y(p.high ?? p.ratio)}
          stroke="var(--hair)"
          strokeWidth={3}
        />
      ))}
      <polyline
        points={points.map((p) => `${x(p.x).toFixed(1)},${y(p.ratio).toFixed(1)}`).join(' ')}
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth={1.5}
      />
      <circle cx={x(last)} cy={y(points.at(-1)!.ratio)} r={3} fill="var(--ink)" />
    </svg>
  );
}
