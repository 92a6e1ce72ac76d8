import type { Schemas } from '../api/client.ts';
import { markColour, markPath } from '../chart/Mark.tsx';
import { number, quantity } from '../format/format.ts';
import { useTable } from '../shell/table-store.ts';
import { table } from './csv.ts';
import { slotsOf } from './slots.ts';
import { TakeFigure } from './TakeFigure.tsx';

const [WIDTH, HEIGHT, BELOW, LEFT, RIGHT] = [760, 230, 90, 56, 12];

/** Curves of all sides on logarithmic axes, the ratio to the base below; peaks ringed, dents marked. */
export function CurvesPlot({
  data,
  comparison,
}: {
  data: Schemas['ComparedMetric'];
  comparison: Schemas['Comparison'];
}) {
  const slots = slotsOf(
    useTable(),
    data.sides.map((s) => s.configurationId),
  );
  const curves = data.sides.flatMap((s) => (s.curve ? [{ id: s.configurationId, ...s.curve }] : []));
  if (curves.length === 0) return null;
  const named = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const name = (id: number) => {
    const c = named.find((n) => n.id === id)!;
    return `${c.model}, ${c.name}`;
  };
  const points = curves.flatMap((c) => c.points);
  const scale = (values: number[], from: number, to: number) => {
    const [low, high] = [Math.log(Math.min(...values)), Math.log(Math.max(...values))];
    return (v: number) => from + (high === low ? 0.5 : (Math.log(v) - low) / (high - low)) * (to - from);
  };
  const x = scale(
    points.map((p) => p.x),
    LEFT,
    WIDTH - RIGHT,
  );
  const y = scale(
    points.map((p) => p.y),
    HEIGHT - 24,
    12,
  );
  const ratios = curves.flatMap((c) => c.overBase);
  const r = scale([...ratios.map((p) => p.ratio), 1, 1.1, 1 / 1.1], HEIGHT + BELOW - 8, HEIGHT + 8);
  const line = (all: readonly { x: number; at: number }[]) =>
    all.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.x).toFixed(1)} ${p.at.toFixed(1)}`).join('');
  const unit = data.metric.xUnit ?? '';
  return (
    <figure className="mt-3 max-w-[980px]">
      <TakeFigure
        name={data.metric.test}
        caption={`${data.metric.test}: ${curves.map((c) => name(c.id)).join(' · ')}`}
        csv={() =>
          table([
            ['configuration', `x in ${unit}`, `y in ${data.metric.unit}`, 'ratio to the base'],
            ...curves.flatMap((c) =>
              c.points.map((p) => [name(c.id), p.x, p.y, c.overBase.find((o) => o.x === p.x)?.ratio]),
            ),
          ])
        }
      >
        <svg
          viewBox={`0 0 ${WIDTH} ${ratios.length > 0 ? HEIGHT + BELOW : HEIGHT}`}
          width="100%"
          role="img"
          aria-label={`Curves of ${data.metric.test}`}
        >
          <g fontSize={11} fill="var(--ink-3)">
            <text x={LEFT - 6} y={16} textAnchor="end">
              {number(Math.max(...points.map((p) => p.y)), 3)}
            </text>
            <text x={LEFT - 6} y={HEIGHT - 24} textAnchor="end">
              {number(Math.min(...points.map((p) => p.y)), 3)}
            </text>
            <text x={LEFT} y={HEIGHT - 8}>
              {quantity(Math.min(...points.map((p) => p.x)), unit)}
            </text>
            <text x={WIDTH - RIGHT} y={HEIGHT - 8} textAnchor="end">
              {quantity(Math.max(...points.map((p) => p.x)), unit)}
            </text>
            <text x={LEFT + 4} y={12}>
              {data.metric.unit}
            </text>
          </g>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={HEIGHT - 22} y2={HEIGHT - 22} stroke="var(--hair)" />
          {curves.map((c) => {
            const slot = slots(c.id);
            return (
              <g key={c.id} stroke={markColour(slot)} fill={markColour(slot)}>
                <path d={line(c.points.map((p) => ({ x: p.x, at: y(p.y) })))} fill="none" strokeWidth={1.5} />
                {c.points.map((p) => (
                  <path
                    key={p.x}
                    transform={`translate(${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)})`}
                    d={markPath(slot, 2.6)}
                    stroke="none"
                  />
                ))}
                <circle cx={x(c.peak.x)} cy={y(c.peak.y)} r={7} fill="none" strokeWidth={1.4} />
                <line x1={x(c.nearPeakFrom)} x2={x(c.nearPeakFrom)} y1={HEIGHT - 22} y2={HEIGHT - 30} strokeWidth={2} />
                {c.dents.map((p) => (
                  <path key={p.x} d={`M${x(p.x) - 4} ${y(p.y) + 6}h8l-4 6z`} stroke="none" />
                ))}
                <path d={line(c.overBase.map((p) => ({ x: p.x, at: r(p.ratio) })))} fill="none" strokeWidth={1.5} />
              </g>
            );
          })}
          {ratios.length > 0 && (
            <g>
              <line x1={LEFT} x2={WIDTH - RIGHT} y1={r(1)} y2={r(1)} stroke="var(--tick)" strokeDasharray="3 3" />
              <text x={LEFT - 6} y={r(1) + 4} fontSize={11} fill="var(--ink-3)" textAnchor="end">
                same
              </text>
            </g>
          )}
        </svg>
      </TakeFigure>
      <figcaption className="small">
        {curves.map((c) => (
          <span key={c.id} className="block">
            {name(c.id)}: peak {quantity(c.peak.y, data.metric.unit)} at {quantity(c.peak.x, unit)}, 90 % of it from{' '}
            {quantity(c.nearPeakFrom, unit)},{' '}
            {c.dents.length === 0 ? 'no dents' : `dents at ${c.dents.map((d) => quantity(d.x, unit)).join(', ')}`}.
          </span>
        ))}
        Rings are peaks, bars on the axis where 90 % of the peak is reached, small triangles dents
        {ratios.length > 0 && '; below, the ratio to the base'}.
      </figcaption>
    </figure>
  );
}
