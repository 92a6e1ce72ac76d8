import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { scaleLinear, scaleLog } from 'd3-scale';
import { api, value, type Schemas } from '../api/client.ts';
import { markColour, markPath } from '../chart/Mark.tsx';
import { table } from '../compare/csv.ts';
import { TakeFigure } from '../compare/TakeFigure.tsx';
import { index, number, quantity } from '../format/format.ts';
import { slotOf, tableActions, useTable } from '../shell/table-store.ts';
import { Choice } from '../ui/Choice.tsx';
import { Ready } from '../ui/states.tsx';
import type { Ask, Standings } from './ask.ts';
import { placeLabels } from './labels.ts';
import { useQuantities } from './StandingsSentence.tsx';

type Against = Schemas['Against'];
const [WIDTH, HEIGHT] = [1180, 470];
const EDGE = { left: 54, right: 16, top: 14, bottom: 40 };

/** Index against what it costs, with the frontier of best value. */
export function AgainstPlot({
  ask,
  standings,
  against,
  onAgainst,
}: {
  ask: Ask;
  standings: Standings;
  against: string;
  onAgainst: (key: string) => void;
}) {
  const quantities = useQuantities();
  const plot = useQuery({
    queryKey: ['against', ask, against],
    queryFn: () => value(api.GET('/api/standings/against', { params: { query: { ...ask, quantity: against } } })),
  });
  const chosen = quantities.data?.find((q) => q.key === against);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <p className="text-[15px] text-ink-2">
        Index against{' '}
        <Choice
          name="Held against"
          value={against}
          options={(quantities.data ?? []).map((q) => ({ value: q.key, label: q.label, detail: q.unit }))}
          onChoose={onAgainst}
        >
          {chosen?.label ?? '…'}
        </Choice>
        .{' '}
        {plot.data && (
          <>
            The line joins those that no other beats in both
            {plot.data.without > 0 && `; of ${plot.data.without} placed ones it is not known`}.
          </>
        )}
      </p>
      <Ready query={plot} what="the plot">
        {(data) =>
          data.points.length === 0 ? (
            <p className="mt-4 border-l-2 border-gold pl-4 text-ink-2">
              It is not known of any of those that are placed. Enter it on the shelf, or hold them against something
              else.
            </p>
          ) : (
            <Plot data={data} standings={standings} />
          )
        }
      </Ready>
    </div>
  );
}

function Plot({ data, standings }: { data: Against; standings: Standings }) {
  const on = useTable();
  const rows = new Map(standings.rows.map((r) => [r.configuration.id, r]));
  const name = (id: number) => {
    const c = rows.get(id)!.configuration;
    return `${c.maker} ${c.model}`;
  };
  const points = data.points.filter((p) => rows.has(p.configurationId));
  const xs = points.map((p) => p.x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const wide = !data.date && low > 0 && high / low > 6;
  const pad = (high - low || Math.abs(high) || 1) * 0.06;
  const across = (
    wide ? scaleLog().domain([low / 1.12, high * 1.12]) : scaleLinear().domain([low - pad, high + pad])
  ).range([EDGE.left, WIDTH - EDGE.right]);
  const ys = points.map((p) => p.index);
  const up = scaleLog()
    .domain([Math.min(...ys) / 1.08, Math.max(...ys) * 1.08])
    .range([HEIGHT - EDGE.bottom, EDGE.top]);
  const line = points.filter((p) => p.frontier).sort((a, b) => a.x - b.x);
  const labels = placeLabels(
    points.map((p) => ({
      x: across(p.x),
      y: up(p.index),
      text: name(p.configurationId),
      weight: (slotOf(on, p.configurationId) !== null ? 4 : 0) + (p.frontier ? 2 : 0) + p.index / 1e6,
    })),
    WIDTH,
    HEIGHT - EDGE.bottom,
  );
  const said = (x: number) =>
    data.date
      ? new Date(x * 86_400_000).toISOString().slice(0, 7)
      : data.quantity.unit === 'By'
        ? quantity(x, 'B')
        : number(x, 3);
  const unit =
    data.date || data.quantity.unit === '' || data.quantity.unit === '1' || data.quantity.unit === 'By'
      ? ''
      : ` in ${data.quantity.unit}`;
  const title = `Index against ${data.quantity.label}`;
  return (
    <>
      <TakeFigure
        name={title}
        caption={`${title}, ${standings.scope}, ${standings.purpose}`}
        csv={() =>
          table([
            ['model', 'configuration', data.quantity.label + unit, 'index', 'on the frontier'],
            ...points.map((p) => [
              name(p.configurationId),
              rows.get(p.configurationId)!.configuration.name,
              p.shown || p.x,
              p.index,
              p.frontier ? 'yes' : 'no',
            ]),
          ])
        }
      >
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          width="100%"
          role="img"
          aria-label={`${title}: ${points.length} configurations, ${line.length} on the frontier of best value. The table below has the numbers.`}
          style={{ maxHeight: '58vh' }}
        >
          {(wide ? across.ticks(8).filter((_, i, all) => all.length <= 12 || i % 2 === 0) : across.ticks(8)).map(
            (t) => (
              <g key={t}>
                <path d={`M${across(t).toFixed(1)} ${EDGE.top}V${HEIGHT - EDGE.bottom}`} stroke="var(--hair-2)" />
                <text x={across(t)} y={HEIGHT - EDGE.bottom + 16} fontSize={12} textAnchor="middle" fill="var(--ink-3)">
                  {said(t)}
                </text>
              </g>
            ),
          )}
          {up
            .ticks(6)
            .filter((_, i, all) => all.length <= 8 || i % 2 === 0)
            .map((t) => (
              <g key={t}>
                <path d={`M${EDGE.left} ${up(t).toFixed(1)}H${WIDTH - EDGE.right}`} stroke="var(--hair-2)" />
                <text x={EDGE.left - 8} y={up(t) + 4} fontSize={12} textAnchor="end" fill="var(--ink-3)">
                  {index(t)}
                </text>
              </g>
            ))}
          <text x={WIDTH - EDGE.right} y={HEIGHT - 6} fontSize={12.5} textAnchor="end" fill="var(--ink-2)">
            {data.quantity.label}
            {unit}, {data.lessIsBetter ? (data.date ? 'earlier to the left' : 'less to the left') : 'more is better'}
          </text>
          <path
            d={line.map((p, i) => `${i === 0 ? 'M' : 'L'}${across(p.x).toFixed(1)} ${up(p.index).toFixed(1)}`).join('')}
            fill="none"
            stroke="var(--gold)"
            strokeWidth={1.8}
          />
          {points.map((p) => {
            const slot = slotOf(on, p.configurationId);
            return (
              <g
                key={p.configurationId}
                transform={`translate(${across(p.x).toFixed(1)} ${up(p.index).toFixed(1)})`}
                style={{ cursor: 'pointer' }}
                onClick={() => tableActions.toggle(p.configurationId)}
              >
                <title>
                  {name(p.configurationId)}, {rows.get(p.configurationId)!.configuration.name}: {p.shown || said(p.x)},
                  index {index(p.index)}
                </title>
                <path
                  d={markPath(slot, slot === null ? 4 : 6)}
                  fill={slot === null && !p.frontier ? 'var(--tick)' : markColour(slot)}
                  stroke="var(--paper)"
                />
              </g>
            );
          })}
          {labels.map((l) => (
            <text
              key={l.of}
              x={l.x}
              y={l.y}
              textAnchor={l.anchor}
              fontSize={12.5}
              fill={points[l.of]!.frontier ? 'var(--ink)' : 'var(--ink-2)'}
              fontWeight={points[l.of]!.frontier ? 600 : 400}
            >
              {name(points[l.of]!.configurationId)}
            </text>
          ))}
        </svg>
      </TakeFigure>
      <details className="mt-2">
        <summary className="small cursor-pointer">The same as a table</summary>
        <table className="data mt-1 w-full max-w-[860px]">
          <thead>
            <tr>
              <th>Model and configuration</th>
              <th className="!text-right">
                {data.quantity.label}
                {unit}
              </th>
              <th className="!text-right">Index</th>
              <th>Best value</th>
            </tr>
          </thead>
          <tbody>
            {[...points]
              .sort((a, b) => b.index - a.index)
              .map((p) => (
                <tr key={p.configurationId}>
                  <td>
                    <Link
                      to="/shelf/configurations/$configurationId"
                      params={{ configurationId: String(p.configurationId) }}
                      className="font-semibold hover:underline"
                    >
                      {name(p.configurationId)}
                    </Link>{' '}
                    <span className="small">{rows.get(p.configurationId)!.configuration.name}</span>
                  </td>
                  <td className="text-right">{p.shown || said(p.x)}</td>
                  <td className="text-right">{index(p.index)}</td>
                  <td>{p.frontier ? 'on the frontier' : ''}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </details>
    </>
  );
}
