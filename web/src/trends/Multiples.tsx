import { useQuery } from '@tanstack/react-query';
import { api, value, type Schemas } from '../api/client.ts';
import { linearTicks } from '../chart/axis-ticks.ts';
import { number, unitName } from '../format/format.ts';
import type { TrendsSearch } from '../shell/search-params.ts';
import { askOf } from './trend-ask.ts';
import { places, unbroken, type Line, type Trends } from './trends.ts';

const [WIDTH, HEIGHT, LEFT, TOP, BOTTOM] = [290, 150, 48, 12, 24];
/** Between the readings of a step, in px. */
const BESIDE = 1.6;

/** One small panel for each test, in its own unit, with its usual range where the same device was measured again and again. */
export function Multiples({ trends, search, toScale }: { trends: Trends; search: TrendsSearch; toScale: boolean }) {
  const ask = askOf(search);
  // The panels are there without them: dots are only drawn in.
  const readings = useQuery({
    queryKey: ['trends', 'readings', ask],
    queryFn: ({ signal }) => value(api.GET('/api/trends/readings', { params: { query: ask }, signal })),
  });
  // One result is no trend: such tests are named below.
  const once = trends.lines.filter((l) => l.points.length < 2);
  return (
    <>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-4" aria-label="A panel for each test">
        {trends.lines
          .filter((l) => l.points.length > 1)
          .map((l) => (
            <li key={l.metric.id}>
              <Panel
                trends={trends}
                line={l}
                dots={(readings.data ?? []).filter((d) => d.metricId === l.metric.id)}
                toScale={toScale}
              />
            </li>
          ))}
      </ul>
      {once.length > 0 && (
        <p className="small mt-2">Measured at one step only: {once.map((l) => l.metric.name).join(', ')}.</p>
      )}
    </>
  );
}

function Panel({
  trends,
  line,
  dots,
  toScale,
}: {
  trends: Trends;
  line: Line;
  dots: readonly Schemas['DotsPart'][];
  toScale: boolean;
}) {
  const xs = places(trends.steps, LEFT + 6, WIDTH - 10, toScale);
  const values = [
    ...line.points.map((p) => p.value),
    ...line.ranges.flatMap((r) => [r.low, r.high]),
    ...dots.flatMap((d) => d.values),
  ];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = high - low || Math.abs(high) * 0.02 || 1;
  const y = (v: number) => HEIGHT - BOTTOM - ((v - low + room * 0.06) / (room * 1.12)) * (HEIGHT - TOP - BOTTOM);
  const outside = new Set(line.ranges.filter((r) => r.outside).map((r) => r.step));
  const first = trends.steps[0]!.label;
  const last = trends.steps.at(-1)!.label;
  return (
    <figure>
      <figcaption>
        <b className="block truncate font-semibold" title={line.metric.name}>
          {line.metric.name}
        </b>
        <span className="small flex items-baseline gap-2">
          {unitName(line.metric.unit)}, {line.metric.direction === 'LESS_IS_BETTER' ? 'less' : 'more'} is better
          {outside.size > 0 && (
            <span className="pill ml-auto" data-tone="wait">
              {outside.size} out of its usual range
            </span>
          )}
        </span>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`${line.metric.name}: ${line.points.map((p) => `${trends.steps[p.step]!.label} ${number(p.value, 3)}`).join(', ')}`}
      >
        <g fontSize={10.5} fill="var(--ink-3)">
          {linearTicks(low, high, 4).map((t) => (
            <g key={t}>
              <path d={`M${LEFT} ${y(t).toFixed(1)}H${WIDTH - 4}`} stroke="var(--hair-2)" />
              <text x={LEFT - 5} y={y(t) + 3.5} textAnchor="end">
                {number(t, 3)}
              </text>
            </g>
          ))}
          <text x={LEFT} y={HEIGHT - 7}>
            {first}
          </text>
          <text x={WIDTH - 4} y={HEIGHT - 7} textAnchor="end">
            {last}
          </text>
        </g>
        {line.ranges.map((r, i) => (
          <path
            key={i}
            d={`M${(xs[r.step]! - 4).toFixed(1)} ${y(r.high).toFixed(1)}h8V${y(r.low).toFixed(1)}h-8z`}
            fill="var(--leaf-soft)"
          />
        ))}
        {dots.map((d) =>
          d.values.map((v, i) => (
            <circle
              key={`${d.step}-${i}`}
              // Beside one another, or equal readings would be one dot.
              cx={xs[d.step]! + BESIDE * (i - (d.values.length - 1) / 2)}
              cy={y(v)}
              r={1.4}
              fill="var(--ink-3)"
              opacity={0.7}
            />
          )),
        )}
        {unbroken(line.points).map((part) => (
          <path
            key={part[0]!.step}
            d={part.map((p, i) => `${i === 0 ? 'M' : 'L'}${xs[p.step]!.toFixed(1)} ${y(p.value).toFixed(1)}`).join('')}
            fill="none"
            stroke="var(--leaf)"
            strokeWidth={1.4}
          />
        ))}
        {line.points.map((p) => (
          <circle
            key={p.step}
            cx={xs[p.step]}
            cy={y(p.value)}
            r={outside.has(p.step) ? 5 : 3}
            fill={outside.has(p.step) ? 'var(--plum)' : 'var(--leaf)'}
          >
            <title>
              {`${trends.steps[p.step]!.label}: ${p.held ? 'at least ' : ''}${number(p.value, 4)} ${line.metric.unit}, ${p.runs} runs${outside.has(p.step) ? ', out of its usual range' : ''}`}
            </title>
          </circle>
        ))}
      </svg>
    </figure>
  );
}
