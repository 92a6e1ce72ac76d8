import type { Schemas } from '../api/client.ts';
import { Axes } from '../chart/Axes.tsx';
import { duration } from '../format/format.ts';

const WIDTH = 640;
const BOX = { left: 48, right: 628, top: 22, bottom: 176 };
const MINUTE_MS = 60_000;

/** Agreement with every test over the minutes that the most telling ones take. */
export function HoursPlot({ hours, minutes }: { hours: Schemas['Hours']; minutes: number }) {
  const path = hours.path;
  const longest = 1.04 * (path.at(-1)?.until ?? 1);
  const least = Math.min(0.5, ...path.map((step) => step.agree / hours.pairs));
  const x = (m: number) => BOX.left + (m / longest) * (BOX.right - BOX.left);
  // The best stands a little below the frame, so that its marks do not lie on the title.
  const y = (share: number) => BOX.bottom - ((share - least) / (1 - least)) * (BOX.bottom - BOX.top - 12);
  const taken = new Set(hours.chosen.map((step) => step.testId));
  const line = path.map((step) => `H${x(step.until).toFixed(1)}V${y(step.agree / hours.pairs).toFixed(1)}`).join('');
  const ticks = [0, 1, 2, 3, 4].map((i) => (longest * i) / 4);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 214`}
      className="mt-3 w-full max-w-[640px]"
      role="img"
      aria-label={`Agreement over minutes: ${path.map((s) => `${s.test} ${Math.round((100 * s.agree) / hours.pairs)} %`).join(', ')}`}
    >
      <Axes
        box={BOX}
        x={{ at: x, ticks, words: (m) => (m === 0 ? '0' : duration(m * MINUTE_MS)), title: 'time for all so far' }}
        y={{
          at: y,
          ticks: [0.5, 0.75, 1],
          words: (s) => `${Math.round(100 * s)} %`,
          title: 'pairs the same way round',
        }}
      />
      {minutes < longest && (
        <path d={`M${x(minutes).toFixed(1)} ${BOX.top}V${BOX.bottom}`} stroke="var(--gold)" strokeDasharray="4 3" />
      )}
      <path d={`M${BOX.left} ${y(0.5).toFixed(1)}${line}`} fill="none" stroke="var(--ink-2)" strokeWidth={1.5} />
      {path.map((step) => (
        <circle
          key={step.testId}
          cx={x(step.until)}
          cy={y(step.agree / hours.pairs)}
          r={4}
          fill={taken.has(step.testId) ? 'var(--leaf)' : 'var(--paper)'}
          stroke={taken.has(step.testId) ? 'var(--leaf)' : 'var(--ink-3)'}
        >
          <title>{`${step.test}: ${Math.round((100 * step.agree) / hours.pairs)} % after ${duration(step.until * MINUTE_MS)}`}</title>
        </circle>
      ))}
    </svg>
  );
}
