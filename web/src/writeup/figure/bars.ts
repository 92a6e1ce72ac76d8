import type { Schemas } from '../../api/client.ts';
import { quantity } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';
import { bar, stroke, words, type Drawn } from './drawn.ts';
import { bothForms, pageRows } from './rows.ts';
import { missing, valued } from '../question/number-words.ts';

type Asked = Schemas['AskedValues'];
type Metric = Schemas['MetricRow'];

/** A bar, or the reason why there is none. */
export interface Bar {
  id: number;
  title: string;
  detail: string;
  of: Schemas['OneOf'];
  text: string;
  highlight: boolean;
  published: Schemas['PublishedValue'][];
}

/** One for each configuration, best first or as they were chosen; whoever has no value comes last, with the reason. */
export function barsOf(
  asked: Asked,
  order: 'best' | 'given',
  highlight: number | undefined,
): { metric: Metric; bars: Bar[] } | undefined {
  const metric = asked.metrics[0];
  if (!metric) return undefined;
  const all = asked.rows.map((r) => r.configuration);
  const bars = asked.rows.map((row): Bar => {
    const of = row.values[0]!;
    const c = row.configuration;
    return {
      id: c.id,
      title: `${c.maker} ${c.model}`,
      detail: toldApart(c, all) === named(c) ? c.name : '',
      of,
      text: of.value === undefined ? '–' : `${of.atLeast ? 'at least ' : ''}${valued(of, metric)}`,
      highlight: c.id === highlight,
      published: asked.published.filter((p) => p.modelId === c.modelId),
    };
  });
  const sign = metric.direction === 'LESS_IS_BETTER' ? 1 : -1;
  const value = (b: Bar) => b.of.value ?? Infinity * sign;
  if (order === 'best')
    bars.sort(
      (a, b) => (a.of.value === undefined ? 1 : 0) - (b.of.value === undefined ? 1 : 0) || sign * (value(a) - value(b)),
    );
  return { metric, bars };
}

export function directionWords(metric: Metric): string {
  return metric.direction === 'LESS_IS_BETTER' ? 'less is better' : 'more is better';
}

export const unitWords = (metric: Metric) =>
  metric.unit === '1' || metric.unit === '' ? '' : metric.unit === 'Cel' ? '°C' : metric.unit;

/** The best of many, and whoever is highlighted: further ones are told by their number. */
function shownOf(all: readonly Bar[], most: number): Bar[] {
  const first = all.slice(0, most);
  const own = all.find((b) => b.highlight);
  return own && !first.includes(own) ? [...first.slice(0, -1), own] : first;
}

/** Bars from zero, with whiskers where the interval is known. @param most bars; what is left out is said */
export function drawBars(
  asked: Asked,
  order: 'best' | 'given',
  highlight: number | undefined,
  most = Infinity,
): Drawn | undefined {
  const found = barsOf(asked, order, highlight);
  if (!found) return undefined;
  const { metric } = found;
  const bars = shownOf(found.bars, most);
  const longest = Math.max(
    1e-300,
    ...bars.flatMap((b) => [b.of.value ?? 0, b.of.high ?? 0, ...b.published.map((p) => p.value)]),
  );
  const drawing = bothForms(pageRows(200, 96, bars.some((b) => b.detail) ? 42 : 30), bars.length, 4, (on, height) => {
    const { left, room } = on;
    const x = (v: number) => left + (Math.max(0, v) / longest) * room;
    const half = on.narrow ? 6 : 9;
    return [
      stroke(left, 0, left, height, 'var(--hair)'),
      ...bars.flatMap((b, i) => {
        const middle = on.middle(i) - (on.narrow ? 0 : 2);
        const ink = b.highlight ? 'var(--accent, var(--leaf))' : 'var(--ink)';
        const below = b.detail && !on.narrow;
        return [
          words(
            0,
            below ? middle : on.narrow ? on.text(i) : middle + 5,
            on.narrow && b.detail ? `${b.title}, ${b.detail}` : b.title,
            {
              weight: b.highlight ? 600 : 400,
              fill: b.of.value === undefined ? 'var(--ink-2)' : ink,
              most: on.nameRoom,
            },
          ),
          below ? words(0, middle + 15, b.detail, { size: 11.5, fill: 'var(--ink-2)', most: on.nameRoom }) : '',
          b.of.value === undefined
            ? words(left, middle + 5, missing(b.of), { fill: 'var(--ink-2)', most: room })
            : bar(
                left,
                middle - half,
                x(b.of.value) - left,
                2 * half,
                b.highlight ? 'var(--accent, var(--leaf))' : 'var(--mark-8)',
              ) +
              (b.of.low !== undefined && b.of.high !== undefined && b.of.high > b.of.low
                ? stroke(x(b.of.low), middle, x(b.of.high), middle, 'var(--ink)', 2)
                : ''),
          ...b.published.map(
            (p) =>
              `<path d="M${x(p.value).toFixed(1)} ${(middle - half - 2).toFixed(1)}l5 ${half + 2}l-5 ${half + 2}l-5 -${half + 2}z" fill="var(--paper)" stroke="var(--gold)" stroke-width="1.5"/>`,
          ),
          words(on.width, on.narrow ? on.text(i) : middle + 5, b.text, {
            end: true,
            weight: 600,
            fill: b.of.value === undefined ? 'var(--ink-2)' : ink,
          }),
        ];
      }),
    ];
  });
  const withValue = bars.filter((b) => b.of.value !== undefined);
  const first = withValue[0];
  const unit = unitWords(metric);
  const sources = [...new Set(bars.flatMap((b) => b.published.map((p) => p.source)))];
  return {
    ...drawing,
    caption: `${metric.test}${unit ? `, ${unit}` : ''}; ${directionWords(metric)}. Bars begin at zero${withValue.some((b) => b.of.low !== undefined) ? ', lines are 95 % intervals' : ''}.${found.bars.length > bars.length ? ` ${bars.length} of ${found.bars.length} are shown.` : ''}${sources.length > 0 ? ` Diamonds were published by others: ${sources.join(', ')}.` : ''}`,
    alt: `${metric.test} of ${bars.length} devices, ${directionWords(metric)}.${first ? ` ${first.title}${first.detail ? `, ${first.detail}` : ''} is ${order === 'best' ? 'first' : 'shown first'} with ${first.text}.` : ''}${bars.length > withValue.length ? ` ${bars.length - withValue.length} without a value.` : ''}`,
    columns: [
      'device',
      unit ? `${metric.test}, ${unit}` : metric.test,
      '95 % low',
      '95 % high',
      'runs',
      'why there is none',
    ],
    rows: bars.map((b) => [
      b.detail ? `${b.title}, ${b.detail}` : b.title,
      b.text,
      b.of.low === undefined ? '' : quantity(b.of.low, metric.unit),
      b.of.high === undefined ? '' : quantity(b.of.high, metric.unit),
      b.of.runs === 0 ? '' : String(b.of.runs),
      b.of.value === undefined ? missing(b.of) : '',
    ]),
    asks: bars.map((b) => [
      undefined,
      b.of.value === undefined ? undefined : { of: 'value', configuration: b.id, metric: metric.id },
    ]),
  };
}
