import { number, unitName } from '../format/format.ts';
import { Axes } from './Axes.tsx';
import { linearTicks } from './axis-ticks.ts';

const [WIDTH, HEIGHT, LEFT, TOP, BOTTOM] = [390, 160, 50, 20, 122];
/** More lines than these have no names of their own: they are the cores of one processor. */
const NAMED = 4;
const DASHES = ['', '6 3', '2 3', '8 3 2 3'];
const [KILO, GIGA] = [1e3, 1e9];

export interface TrackLine {
  name: string;
  stepMs: number;
  values: readonly number[];
  colour?: string;
}

/** What sensors of one kind and unit said over a run, from its beginning. */
export function TracksPlot({ title, unit, lines }: { title: string; unit: string; lines: readonly TrackLine[] }) {
  const inGiga = unit === 'Hz';
  const by = inGiga ? GIGA : 1;
  const all = lines.flatMap((l) => l.values.map((v) => v / by));
  if (all.length === 0) return null;
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const room = most - least || Math.max(1, Math.abs(most) * 0.1);
  const [low, high] = [least - room * 0.06, most + room * 0.06];
  const long = Math.max(...lines.map((l) => (l.values.length * l.stepMs) / KILO));
  const across = (s: number) => LEFT + (s / long) * (WIDTH - LEFT - 8);
  const up = (v: number) => TOP + (1 - (v - low) / (high - low)) * (BOTTOM - TOP);
  const shown = inGiga ? 'GHz' : unitName(unit);
  return (
    <figure className="mt-2">
      <figcaption className="font-semibold">{title}</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        className="max-w-[560px]"
        role="img"
        aria-label={`${title}: ${number(least, 3)} to ${number(most, 3)} ${shown} over ${number(long, 3)} s`}
      >
        <Axes
          box={{ left: LEFT, right: WIDTH - 8, top: TOP, bottom: BOTTOM }}
          x={{ at: across, ticks: linearTicks(0, long, 5), words: (t) => number(t, 3), title: 's' }}
          y={{ at: up, ticks: linearTicks(low, high, 4), words: (t) => number(t, 3), title: shown }}
        />
        {lines.map((l, i) => (
          <path
            key={l.name}
            d={l.values
              .map(
                (v, k) =>
                  `${k === 0 ? 'M' : 'L'}${across(((k + 1) * l.stepMs) / KILO).toFixed(1)} ${up(v / by).toFixed(1)}`,
              )
              .join('')}
            fill="none"
            stroke={l.colour ?? 'var(--leaf)'}
            strokeWidth={lines.length > NAMED ? 0.8 : 1.5}
            strokeDasharray={l.colour === undefined && lines.length <= NAMED ? DASHES[i] : undefined}
          />
        ))}
      </svg>
      <details className="small">
        <summary>
          {lines.length <= NAMED ? lines.map((l) => l.name).join(', ') : `${lines.length} lines`}: lowest, mean and
          highest
        </summary>
        <table className="data mt-1">
          <tbody>
            {lines.map((l) => (
              <tr key={l.name}>
                <th scope="row" className="pr-3 text-left font-normal">
                  {l.name}
                </th>
                {[
                  Math.min(...l.values),
                  l.values.reduce((a, b) => a + b, 0) / l.values.length,
                  Math.max(...l.values),
                ].map((v, k) => (
                  <td key={k} className="pr-3 text-right">
                    {number(v / by, 3)} {shown}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
