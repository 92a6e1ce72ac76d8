import type { Schemas } from '../../api/client.ts';
import { linearTicks } from '../../chart/axis-ticks.ts';
import { count, number, quantity } from '../../format/format.ts';
import { toldOf } from './curve-lines.ts';
import { ARTICLE_WIDTH, stroke, words, type Drawn } from './drawn.ts';
import { bothWidths } from './rows.ts';

type Configuration = Schemas['ConfigurationRow'];

const [LEFT, RIGHT, HEAD, STRIP, GAP] = [48, 8, 26, 92, 16];
const MOST = 6;
/** As many as can be seen beside each other: of those in between, the longest frame stands for all. */
const COLUMNS = ARTICLE_WIDTH - LEFT - RIGHT;

/** The longest frame of each stretch, so that no stutter is left out. */
export function longest(times: readonly number[], columns: number): number[] {
  if (times.length <= columns) return [...times];
  return Array.from({ length: columns }, (_, i) =>
    Math.max(...times.slice(Math.floor((i * times.length) / columns), Math.floor(((i + 1) * times.length) / columns))),
  );
}

/** Frame times, a strip for each configuration, all to the same scale: lower and flatter is smoother. */
export function drawFrames(
  data: Schemas['ComparedMetric'],
  configurations: readonly Configuration[],
  highlight: number | undefined,
): Drawn | undefined {
  const all = configurations
    .flatMap((configuration) => {
      const frames = data.sides.find((s) => s.configurationId === configuration.id)?.frames;
      return frames && frames.times.length > 1 ? [{ configuration, ...frames }] : [];
    })
    .slice(0, MOST);
  if (all.length === 0) return undefined;
  const title = toldOf(configurations);
  const most = Math.max(...all.flatMap((f) => longest(f.times, COLUMNS)));
  const ticks = linearTicks(0, most, 4).filter((t) => t > 0);
  const drawing = bothWidths((width, phone) => {
    const room = width - LEFT - RIGHT;
    // On a phone the numbers stand below the name.
    const head = phone ? HEAD + 18 : HEAD;
    const parts = all.flatMap((f, i) => {
      const top = i * (head + STRIP + GAP) + head;
      const y = (ms: number) => top + STRIP - (ms / most) * STRIP;
      const shown = longest(f.times, COLUMNS);
      const ink = f.configuration.id === highlight ? 'var(--accent, var(--leaf))' : 'var(--mark-8)';
      return [
        words(0, phone ? top - 27 : top - 9, title(f.configuration), {
          weight: 600,
          fill: f.configuration.id === highlight ? ink : 'var(--ink)',
          most: phone ? width : 300,
        }),
        words(
          width,
          top - 9,
          `${quantity(f.numbers.meanRate, 'fps')} mean, ${quantity(f.numbers.lowMean, 'fps')} 1 % low, ${count(f.numbers.stutters)} ${f.numbers.stutters === 1 ? 'stutter' : 'stutters'}`,
          { size: 13, end: true, fill: 'var(--ink-2)' },
        ),
        ...ticks.flatMap((t) => [
          stroke(LEFT, y(t), width - RIGHT, y(t), 'var(--hair-2)'),
          words(LEFT - 6, y(t) + 4, `${number(t, 3)} ms`, { size: 11, end: true, fill: 'var(--ink-2)' }),
        ]),
        stroke(LEFT, top + STRIP, width - RIGHT, top + STRIP, 'var(--ink-3)'),
        `<path d="${shown.map((ms, k) => `${k === 0 ? 'M' : 'L'}${(LEFT + (k / (shown.length - 1)) * room).toFixed(1)} ${y(ms).toFixed(1)}`).join('')}" fill="none" stroke="${ink}" stroke-width="1.2" stroke-linejoin="round"/>`,
      ];
    });
    return { parts, height: all.length * (head + STRIP + GAP) };
  });
  return {
    ...drawing,
    caption: `${data.metric.test}: how long each frame took, in ms, over one run; lower and flatter is smoother. The 1 % low is the mean of the slowest hundredth.`,
    alt: `Frame times of ${data.metric.test}. ${all.map((f) => `${title(f.configuration)}: ${quantity(f.numbers.meanRate, 'fps')} mean, ${quantity(f.numbers.lowMean, 'fps')} 1 % low, ${count(f.numbers.stutters)} stutters`).join('; ')}.`,
    columns: ['configuration', 'frames', 'mean', '1 % low, mean', '1 % low, percentile', 'stutters'],
    rows: all.map((f) => [
      title(f.configuration),
      String(f.times.length),
      quantity(f.numbers.meanRate, 'fps'),
      quantity(f.numbers.lowMean, 'fps'),
      quantity(f.numbers.lowPercentile, 'fps'),
      count(f.numbers.stutters),
    ]),
  };
}
