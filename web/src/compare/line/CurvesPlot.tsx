import type { Schemas } from '../../api/client.ts';
import { markColour, markPath } from '../../chart/Mark.tsx';
import { Axes } from '../../chart/Axes.tsx';
import { baseOf, logTicks } from '../../chart/axis-ticks.ts';
import { number, quantity, unitName } from '../../format/format.ts';
import { useTable } from '../../shell/table-store.ts';
import { useWidth } from '../../ui/use-width.ts';
import { times } from '../../format/ratio.ts';
import { table } from '../../export/csv.ts';
import { slotsOf } from './slots.ts';
import { ExportFigure } from '../../export/ExportFigure.tsx';

const [HEIGHT, BELOW, LEFT, RIGHT] = [270, 96, 64, 14];
const [TOP, BOTTOM] = [22, HEIGHT - 44];

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
  const named = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const name = (id: number) => {
    const c = named.find((n) => n.id === id)!;
    return `${c.model}, ${c.name}`;
  };
  const [holder, measured] = useWidth<HTMLElement>(760);
  if (curves.length === 0) return null;
  const WIDTH = Math.max(280, Math.min(980, measured));
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
    BOTTOM - 6,
    TOP + 6,
  );
  const ratios = curves.flatMap((c) => c.overBase);
  const r = scale([...ratios.map((p) => p.ratio), 1, 1.1, 1 / 1.1], HEIGHT + BELOW - 8, HEIGHT + 8);
  const line = (all: readonly { x: number; at: number }[]) =>
    all.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.x).toFixed(1)} ${p.at.toFixed(1)}`).join('');
  const unit = data.metric.xUnit === 'By' ? 'B' : (data.metric.xUnit ?? '');
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const binary = unit === 'B';
  return (
    <figure ref={holder} className="mt-3 max-w-[980px]">
      <ExportFigure
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
          <Axes
            box={{ left: LEFT, right: WIDTH - RIGHT, top: TOP, bottom: BOTTOM }}
            x={{
              at: x,
              ticks: logTicks(Math.min(...xs), Math.max(...xs), Math.floor(WIDTH / 84), baseOf(unit)),
              words: (t) => (binary ? quantity(t, unit) : number(t, 3)),
              title: binary || unit === '' ? '' : `in ${unit}`,
            }}
            y={{
              at: y,
              ticks: logTicks(Math.min(...ys), Math.max(...ys), 5),
              words: (t) => number(t, 3),
              title: unitName(data.metric.unit),
            }}
          />
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
                <line x1={x(c.nearPeakFrom)} x2={x(c.nearPeakFrom)} y1={BOTTOM} y2={BOTTOM - 8} strokeWidth={2} />
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
              {logTicks(Math.min(...ratios.map((p) => p.ratio), 1), Math.max(...ratios.map((p) => p.ratio), 1), 3)
                .filter((t) => Math.abs(r(t) - r(1)) > 12)
                .map((t) => (
                  <text key={t} x={LEFT - 6} y={r(t) + 4} fontSize={11} fill="var(--ink-3)" textAnchor="end">
                    {times(t)}
                  </text>
                ))}
            </g>
          )}
        </svg>
      </ExportFigure>
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
      <CurvesTable
        data={data}
        curves={curves.map((c) => ({ name: name(c.id), points: c.points, overBase: c.overBase }))}
      />
    </figure>
  );
}

/** The same numbers, a line for each x. */
function CurvesTable({
  data,
  curves,
}: {
  data: Schemas['ComparedMetric'];
  curves: readonly {
    name: string;
    points: readonly { x: number; y: number }[];
    overBase: readonly { x: number; ratio: number }[];
  }[];
}) {
  const unit = data.metric.xUnit === 'By' ? 'B' : (data.metric.xUnit ?? '');
  const xs = [...new Set(curves.flatMap((c) => c.points.map((p) => p.x)))].sort((a, b) => a - b);
  return (
    <details className="mt-1">
      <summary className="small cursor-pointer">The same as a table</summary>
      <div
        className="mt-1 max-h-80 w-fit max-w-full overflow-auto"
        tabIndex={0}
        role="group"
        aria-label="Curves as a table"
      >
        <table className="data">
          <thead>
            <tr>
              <th>At</th>
              {curves.map((c) => (
                <th key={c.name} className="text-right">
                  {c.name}, {unitName(data.metric.unit)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {xs.map((x) => (
              <tr key={x}>
                <th scope="row" className="text-left font-normal whitespace-nowrap">
                  {quantity(x, unit)}
                </th>
                {curves.map((c) => {
                  const y = c.points.find((p) => p.x === x)?.y;
                  const ratio = c.overBase.find((p) => p.x === x)?.ratio;
                  return (
                    <td key={c.name} className="text-right whitespace-nowrap">
                      {y === undefined ? '–' : number(y, 4)}
                      {ratio !== undefined && <span className="small"> {times(ratio)}</span>}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
