import type { Schemas } from '../../api/client.ts';
import { formatRatio } from '../../format/ratio.ts';
import { trendWords, wholeWayWords, type TrendBy } from '../question/asked.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothWidths } from './rows.ts';

type Trends = Schemas['Trends'];

const [HEIGHT, LEFT, RIGHT, TOP, FOOT] = [300, 54, 20, 14, 44];
/** Fewer than these would crowd the axis. */
const MOST_LABELS = 10;
const MOST_ON_PHONE = 4;

/** The overall along its steps with its interval, every test behind it in grey; right is later or more, up is better. */
export function drawTrend(trends: Trends, by?: TrendBy): Drawn | undefined {
  const narrowed = trendWords(by, trends);
  const points = trends.overall?.points ?? [];
  if (trends.steps.length < 2 || (points.length === 0 && trends.lines.length === 0)) return undefined;
  const materiality = 1 + trends.materiality / 100;
  const ratios = [
    ...points.flatMap((p) => [p.low, p.high]),
    ...trends.lines.flatMap((l) => l.points.flatMap((p) => (p.ratio === undefined ? [] : [p.ratio]))),
  ].filter((r) => r > 0 && Number.isFinite(r));
  const far = Math.max(Math.log(materiality) * 1.5, ...ratios.map((r) => Math.abs(Math.log(r)))) * 1.08;
  const room = HEIGHT - TOP - FOOT;
  const y = (ratio: number) => TOP + room / 2 - (Math.log(ratio) / far) * (room / 2);
  const first = points[0];
  const last = points.at(-1);
  const marked = trends.overall?.steps.filter((s) => s.marked) ?? [];
  const ticks = [1, materiality ** 2, 1 / materiality ** 2, Math.exp(far * 0.8), Math.exp(-far * 0.8)];
  const whose = `${trends.maker} ${trends.model}${trends.unit ? `, ${trends.unit}` : ''}`;
  const drawing = bothWidths((width, phone) => {
    const x = (step: number) => LEFT + (step / (trends.steps.length - 1)) * (width - LEFT - RIGHT);
    const path = (of: readonly { step: number; ratio: number }[]) =>
      of.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.step).toFixed(1)} ${y(p.ratio).toFixed(1)}`).join('');
    const every = Math.ceil(trends.steps.length / (phone ? MOST_ON_PHONE : MOST_LABELS));
    // The first and last stand inside of the axis, the others around their steps.
    const apart = x(every) - x(0);
    // The last one is always said; one that would run into it is not.
    const said = (i: number) =>
      i === trends.steps.length - 1 || (i % every === 0 && trends.steps.length - 1 - i >= every);
    const parts = [
      `<rect x="${LEFT}" y="${y(materiality).toFixed(1)}" width="${width - LEFT - RIGHT}" height="${(y(1 / materiality) - y(materiality)).toFixed(1)}" fill="var(--band)"/>`,
      stroke(LEFT, y(1), width - RIGHT, y(1), 'var(--ink-3)'),
      ...ticks
        .filter((t, i) => i === 0 || Math.abs(y(t) - y(1)) > 24)
        .map((t) =>
          words(LEFT - 8, y(t) + 4, t === 1 ? 'same' : formatRatio(t, materiality), {
            size: 12,
            end: true,
            fill: 'var(--ink-2)',
          }),
        ),
      ...trends.lines.map((l) => {
        const known = l.points.flatMap((p) => (p.ratio === undefined ? [] : [{ step: p.step, ratio: p.ratio }]));
        return known.length < 2 ? '' : `<path d="${path(known)}" fill="none" stroke="var(--hair)" stroke-width="1.5"/>`;
      }),
      points.length > 1
        ? `<path d="${points.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.step).toFixed(1)} ${y(p.high).toFixed(1)}`).join('')}${[
            ...points,
          ]
            .reverse()
            .map((p) => `L${x(p.step).toFixed(1)} ${y(p.low).toFixed(1)}`)
            .join(
              '',
            )}Z" fill="var(--leaf)" fill-opacity="0.16"/><path d="${path(points)}" fill="none" stroke="var(--leaf)" stroke-width="2.4"/>`
        : '',
      ...points.map((p) => {
        const step = marked.find((s) => s.to === p.step);
        const colour = step?.verdict.endsWith('LOSS') ? 'var(--plum)' : 'var(--leaf)';
        return `<circle cx="${x(p.step).toFixed(1)}" cy="${y(p.ratio).toFixed(1)}" r="${step ? 6 : 4}" fill="${step ? colour : 'var(--paper)'}" stroke="${colour}" stroke-width="2"/>`;
      }),
      ...trends.steps.map((s, i) =>
        said(i)
          ? words(x(i), HEIGHT - FOOT + 20, s.label, {
              size: 12,
              middle: i > 0 && i < trends.steps.length - 1,
              end: i === trends.steps.length - 1,
              fill: 'var(--ink-2)',
              most: apart * 0.64,
            })
          : '',
      ),
      words(width - RIGHT, HEIGHT - 6, trends.along.label, { size: 12, end: true, fill: 'var(--ink-2)' }),
    ];
    return { parts, height: HEIGHT };
  });
  return {
    ...drawing,
    caption: `${whose} along ${trends.along.label.toLowerCase()}: overall for ${trends.purpose}${narrowed && `, ${narrowed},`} with its 95 % interval, each test in grey, the first = same; up is better, filled where a step is clear.${wholeWayWords(trends)}`,
    alt: `${whose} over ${trends.steps.length} steps of ${trends.along.label.toLowerCase()}${first && last ? `, from ${trends.steps[first.step]!.label} to ${trends.steps[last.step]!.label} ${formatRatio(last.ratio / first.ratio, materiality)}` : ''}. ${marked.length === 0 ? 'No step is clear' : `${marked.length} ${marked.length === 1 ? 'step is' : 'steps are'} clear`}.`,
    columns: [trends.along.label, 'overall', '95 % low', '95 % high'],
    rows: trends.steps.map((s, i) => {
      const p = points.find((o) => o.step === i);
      return [
        s.label,
        p ? formatRatio(p.ratio, materiality) : '–',
        p ? p.low.toFixed(3) : '',
        p ? p.high.toFixed(3) : '',
      ];
    }),
  };
}
