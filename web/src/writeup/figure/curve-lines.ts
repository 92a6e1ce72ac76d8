import type { Schemas } from '../../api/client.ts';
import { baseOf, logTicks } from '../../chart/axis-ticks.ts';
import { number, quantity, unitName } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothWidths } from './rows.ts';
import { directionWords } from './bars.ts';

type Configuration = Schemas['ConfigurationRow'];

const [HEIGHT, LEFT, RIGHT, TOP, FOOT] = [320, 62, 14, 26, 46];
/** More lines than these cannot be told apart. */
const MOST = 8;
/** Names of lines stand below the drawing, each on a line. */
const NAME = 20;

/** Curves of several configurations on logarithmic axes, each with its peak ringed. */
export function drawCurves(
  data: Schemas['ComparedMetric'],
  configurations: readonly Configuration[],
  highlight: number | undefined,
): Drawn | undefined {
  const { metric } = data;
  const curves = configurations
    .flatMap((configuration) => {
      const curve = data.sides.find((s) => s.configurationId === configuration.id)?.curve;
      return curve && curve.points.length > 0 ? [{ configuration, ...curve }] : [];
    })
    .slice(0, MOST);
  if (curves.length === 0) return undefined;
  const points = curves.flatMap((c) => c.points).filter((p) => p.x > 0 && p.y > 0);
  if (points.length === 0) return undefined;
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const scale = (values: number[], from: number, to: number) => {
    const [low, high] = [Math.log(Math.min(...values)), Math.log(Math.max(...values))];
    return (v: number) => from + (high === low ? 0.5 : (Math.log(v) - low) / (high - low)) * (to - from);
  };
  const bottom = HEIGHT - FOOT;
  const y = scale(ys, bottom - 6, TOP + 6);
  const unit = metric.xUnit === 'By' ? 'B' : (metric.xUnit ?? '');
  const title = toldOf(configurations);
  const colour = (c: Configuration, i: number) =>
    c.id === highlight ? 'var(--accent, var(--leaf))' : `var(--mark-${i + (highlight === undefined ? 1 : 2)})`;
  const at = (v: number) => (unit === '' ? number(v, 3) : quantity(v, unit));
  const drawing = bothWidths((width, phone) => {
    const right = width - RIGHT;
    const x = scale(xs, LEFT, right);
    // On a phone the peak stands below the name.
    const each = phone ? 2 * NAME : NAME;
    const parts = [
      stroke(LEFT, bottom, right, bottom, 'var(--ink-3)'),
      ...logTicks(Math.min(...ys), Math.max(...ys), 5).flatMap((t) => [
        stroke(LEFT, y(t), right, y(t), 'var(--hair-2)'),
        words(LEFT - 8, y(t) + 4, number(t, 3), { size: 12, end: true, fill: 'var(--ink-2)' }),
      ]),
      ...logTicks(Math.min(...xs), Math.max(...xs), phone ? 4 : 8, baseOf(unit)).flatMap((t) => [
        stroke(x(t), bottom, x(t), bottom + 5, 'var(--ink-3)'),
        words(x(t), bottom + 20, at(t), {
          size: 12,
          middle: x(t) < right - 20,
          end: x(t) >= right - 20,
          fill: 'var(--ink-2)',
        }),
      ]),
      words(LEFT - 8, 14, unitName(metric.unit), { size: 12, end: true, fill: 'var(--ink-2)' }),
      ...curves.flatMap((c, i) => {
        const ink = colour(c.configuration, i);
        const line = c.points.filter((p) => p.x > 0 && p.y > 0);
        return [
          `<path d="${line.map((p, k) => `${k === 0 ? 'M' : 'L'}${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)}`).join('')}" fill="none" stroke="${ink}" stroke-width="${c.configuration.id === highlight ? 3 : 2}" stroke-linejoin="round"/>`,
          `<circle cx="${x(c.peak.x).toFixed(1)}" cy="${y(c.peak.y).toFixed(1)}" r="6" fill="none" stroke="${ink}" stroke-width="1.6"/>`,
          stroke(2, HEIGHT + i * each + 6, 26, HEIGHT + i * each + 6, ink, 3),
          words(34, HEIGHT + i * each + 11, title(c.configuration), {
            fill: ink,
            weight: c.configuration.id === highlight ? 600 : 400,
            most: phone ? width - 34 : 400,
          }),
          words(width, HEIGHT + i * each + (phone ? 29 : 11), `${quantity(c.peak.y, metric.unit)} at ${at(c.peak.x)}`, {
            end: true,
            fill: ink,
          }),
        ];
      }),
    ];
    return { parts, height: HEIGHT + curves.length * each };
  });
  return {
    ...drawing,
    caption: `${metric.test}, ${unitName(metric.unit)} over ${unit === 'B' ? 'size' : (unit ?? 'its steps')}; ${directionWords(metric)}. Both axes are logarithmic; rings are peaks.`,
    alt: `${curves.length} ${curves.length === 1 ? 'curve' : 'curves'} of ${metric.test}. ${curves.map((c) => `${named(c.configuration)} has its peak of ${quantity(c.peak.y, metric.unit)} at ${at(c.peak.x)}`).join('; ')}.`,
    columns: ['at', ...curves.map((c) => `${title(c.configuration)}, ${unitName(metric.unit)}`)],
    rows: [...new Set(curves.flatMap((c) => c.points.map((p) => p.x)))]
      .sort((a, b) => a - b)
      .slice(0, 500)
      .map((v) => [
        at(v),
        ...curves.map((c) => {
          const found = c.points.find((p) => p.x === v);
          return found ? number(found.y, 4) : '–';
        }),
      ]),
  };
}

/** Short names where they tell these apart. */
export function toldOf(all: readonly Configuration[]): (c: Configuration) => string {
  return (c) => toldApart(c, all);
}
