import type { Schemas } from '../api/client.ts';
import { number, unitName } from '../format/format.ts';

const [WIDTH, HEIGHT] = [72, 18];
const GIGA = 1e9;

/** What a device's sensors said in the last minutes: a small line and the number of now for each. */
export function LiveSensors({ lines }: { lines: readonly Schemas['Line'][] }) {
  return (
    <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1" aria-label="Sensors now">
      {lines.map((l) => {
        const by = l.unit === 'Hz' ? GIGA : 1;
        const now = l.values[l.values.length - 1];
        if (now === undefined) return null;
        return (
          <li key={l.name} className="flex items-center gap-1.5 text-[12.5px] text-ink-2">
            <span className="max-w-44 truncate" title={l.name}>
              {l.name}
            </span>
            <Spark values={l.values} />
            <span className="font-semibold whitespace-nowrap text-ink">
              {number(now / by, 3)} {by === GIGA ? 'GHz' : unitName(l.unit)}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

function Spark({ values }: { values: readonly number[] }) {
  if (values.length < 2) return null;
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const at = (v: number, i: number) =>
    `${((i / (values.length - 1)) * (WIDTH - 2) + 1).toFixed(1)} ${(HEIGHT - 2 - ((v - low) / (high - low || 1)) * (HEIGHT - 4)).toFixed(1)}`;
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden>
      <path d={`M${values.map(at).join('L')}`} fill="none" stroke="var(--leaf)" strokeWidth={1.3} />
    </svg>
  );
}
