import type { Schemas } from '../../api/client.ts';
import { barsOf, directionWords, unitWords, type Bar } from './bars.ts';
import { bar, stroke, words, type Drawn } from './drawn.ts';
import { bothWidths } from './rows.ts';
import { missing } from '../question/number-words.ts';

type Asked = Schemas['AskedValues'];
type Metric = Schemas['MetricRow'];

/** Whether two values can stand on one scale: bars of two units beside each other would say nothing. */
export function onOneScale(a: Metric, b: Metric): boolean {
  return a.unit === b.unit && a.direction === b.direction;
}

/** What a metric is called beside others, which may be of the same test. */
function nameOf(metric: Metric): string {
  return metric.main ? metric.test : `${metric.test}, ${metric.name}`;
}

const [LEFT, RIGHT, HEAD, LINE, GAP] = [210, 96, 26, 24, 10];

/** Several values of each device on one scale from zero, ordered by the first of them. */
export function drawBarGroups(asked: Asked, order: 'best' | 'given', highlight: number | undefined): Drawn | undefined {
  const first = asked.metrics[0];
  if (!first) return undefined;
  const metrics = asked.metrics.filter((m) => onOneScale(m, first));
  const of = metrics.map((m) => {
    const at = asked.metrics.indexOf(m);
    return barsOf(
      {
        ...asked,
        metrics: [m],
        rows: asked.rows.map((r) => ({ ...r, values: [r.values[at]!] })),
        published: asked.published.filter((p) => p.metricId === m.id),
      },
      order,
      highlight,
    )!.bars;
  });
  const groups = of[0]!.map((b) => ({ head: b, bars: of.map((bars) => bars.find((o) => o.id === b.id)!) }));
  const all = groups.flatMap((g) => g.bars);
  const most = Math.max(
    1e-300,
    ...all.flatMap((b) => [b.of.value ?? 0, b.of.high ?? 0, ...b.published.map((p) => p.value)]),
  );
  const unit = unitWords(first);
  const sources = [...new Set(all.flatMap((b) => b.published.map((p) => p.source)))];
  const title = (b: Bar) => (b.detail ? `${b.title}, ${b.detail}` : b.title);
  const what = metrics.map(nameOf).join(', ');
  const drawing = bothWidths((width, phone) => {
    // On a phone name and value stand in a line, and the bar below them.
    const [left, line] = phone ? [8, 42] : [LEFT, LINE];
    const room = width - left - (phone ? 8 : RIGHT);
    const x = (v: number) => left + (Math.max(0, v) / most) * room;
    const tall = HEAD + metrics.length * line + GAP;
    const row = (b: Bar, metric: Metric, y: number, at: number) => {
      const fill = b.highlight ? 'var(--accent, var(--leaf))' : 'var(--mark-8)';
      const faded = at === 0 ? '' : ` fill-opacity="${Math.max(0.35, 1 - at * 0.25).toFixed(2)}"`;
      const top = phone ? y + 21 : y + 3;
      return [
        words(phone ? left : 14, y + 15, nameOf(metric), {
          size: 12.5,
          fill: 'var(--ink-2)',
          most: phone ? width - 110 : left - 24,
        }),
        b.of.value === undefined
          ? words(left, top + 12, missing(b.of), { size: 13, fill: 'var(--ink-2)', most: room })
          : bar(left, top, x(b.of.value) - left, 15, fill).replace('/>', `${faded}/>`) +
            (b.of.low !== undefined && b.of.high !== undefined && b.of.high > b.of.low
              ? stroke(x(b.of.low), top + 7.5, x(b.of.high), top + 7.5, 'var(--ink)', 2)
              : ''),
        ...b.published.map(
          (p) =>
            `<path d="M${x(p.value).toFixed(1)} ${(top - 2).toFixed(1)}l5 9.5l-5 9.5l-5 -9.5z" fill="var(--paper)" stroke="var(--gold)" stroke-width="1.5"/>`,
        ),
        words(width, y + 15, b.text, { end: true, weight: 600 }),
      ];
    };
    const parts = groups.flatMap((g, i) => {
      const y = i * tall;
      return [
        words(0, y + 18, title(g.head), {
          weight: 600,
          fill: g.head.highlight ? 'var(--accent, var(--leaf))' : 'var(--ink)',
          most: width,
        }),
        stroke(left, y + HEAD, left, y + HEAD + metrics.length * line, 'var(--hair)'),
        ...g.bars.flatMap((b, k) => row(b, metrics[k]!, y + HEAD + k * line, k)),
      ];
    });
    return { parts, height: groups.length * tall };
  });
  return {
    ...drawing,
    caption: `${what}${unit ? `; ${unit}` : ''}, ${directionWords(first)}. Bars begin at zero and share a scale${all.some((b) => b.of.low !== undefined) ? ', lines are 95 % intervals' : ''}.${sources.length > 0 ? ` Diamonds were published by others: ${sources.join(', ')}.` : ''}`,
    alt: `${what} of ${groups.length} devices, ${directionWords(first)}. ${groups
      .slice(0, 12)
      .map((g) => `${title(g.head)}: ${g.bars.map((b) => b.text).join(', ')}`)
      .join('; ')}.`,
    columns: ['device', ...metrics.map((m) => (unit ? `${nameOf(m)}, ${unit}` : nameOf(m)))],
    rows: groups.map((g) => [title(g.head), ...g.bars.map((b) => (b.of.value === undefined ? missing(b.of) : b.text))]),
    asks: groups.map((g) => [
      undefined,
      ...g.bars.map((b, k) =>
        b.of.value === undefined ? undefined : { of: 'value' as const, configuration: b.id, metric: metrics[k]!.id },
      ),
    ]),
  };
}
