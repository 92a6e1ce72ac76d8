import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { chartHeading, chartsOf, drawCharts, MOST_BARS } from './charts.ts';

const metric = (id: number, name: string, more: object = {}) =>
  ({
    id,
    name,
    test: name,
    testId: id,
    unit: 'ops/s',
    direction: 'MORE_IS_BETTER',
    scale: 'RATIO',
    kind: 'NUMBER',
    ...more,
  }) as Schemas['MetricRow'];
const one = (value: number | undefined, more: object = {}) => ({
  ...(value === undefined ? {} : { value, low: value * 0.98, high: value * 1.02 }),
  runs: value === undefined ? 0 : 3,
  sessions: 1,
  unmeasured: false,
  atLeast: false,
  ...more,
});
const configuration = (id: number) => ({ id, modelId: id, maker: 'Ostler', model: `Reed <${id}>`, name: 'as found' });
const asked = (devices: number, values: (i: number) => object[], metrics: Schemas['MetricRow'][]) =>
  ({
    metrics,
    rows: Array.from({ length: devices }, (_, i) => ({ configuration: configuration(i + 1), values: values(i) })),
    published: [],
    gone: [],
  }) as unknown as Schemas['AskedValues'];
const SORT = metric(1, 'Sort');
const PACK = metric(2, 'Pack', { unit: 's', direction: 'LESS_IS_BETTER' });

test('each test has its chart, the best first, by its own direction and unit', () => {
  const charts = chartsOf(
    asked(3, (i) => [one(100 + i), one(10 + i)], [SORT, PACK]),
    undefined,
  );
  expect(charts.map((c) => c.drawn.rows.map((r) => r[0]))).toEqual([
    ['Ostler Reed <3>', 'Ostler Reed <2>', 'Ostler Reed <1>'],
    ['Ostler Reed <1>', 'Ostler Reed <2>', 'Ostler Reed <3>'],
  ]);
  expect(charts.map((c) => chartHeading(c.metric))).toEqual([
    ['Sort', 'ops/s, more is better'],
    ['Pack', 's, less is better'],
  ]);
});

test('who did not run a test is not in its chart, and who failed is named without a mark', () => {
  const failed = one(undefined, { ended: { state: 'FAILED', reason: 'ERROR' }, reason: 'failed on it' });
  const [chart] = chartsOf(
    asked(3, (i) => [[one(5), failed, one(undefined)][i]!], [SORT]),
    undefined,
  );
  expect(chart!.drawn.rows.map((r) => r[0])).toEqual(['Ostler Reed <1>', 'Ostler Reed <2>']);
  expect(chart!.drawn.svg.match(/<rect/g)).toHaveLength(1);
  expect(
    drawCharts(
      asked(3, (i) => [[one(5), failed, one(undefined)][i]!], [SORT]),
      undefined,
    )!.caption,
  ).toContain('1 run gave no score and is named');
});

test('of many the first are shown, and whoever is highlighted, and that is said', () => {
  const many = asked(200, (i) => [one(1000 - i)], [SORT]);
  const [chart] = chartsOf(many, 150);
  expect(chart!.drawn.rows).toHaveLength(MOST_BARS);
  expect(chart!.drawn.rows.at(-1)![0]).toBe('Ostler Reed <150>');
  expect(chart!.drawn.caption).toContain(`${MOST_BARS} of 200 are shown`);
  expect(chartsOf(many, undefined, Infinity)[0]!.drawn.rows).toHaveLength(200);
});

test('as one figure it holds all charts in both forms, and one row for each bar', () => {
  const drawn = drawCharts(
    asked(3, (i) => [one(100 + i), one(10 + i)], [SORT, PACK]),
    2,
  )!;
  for (const form of [drawn.svg, drawn.narrow!]) {
    expect(form.match(/<rect/g)).toHaveLength(6);
    expect(form).toContain('Pack');
    expect(form).not.toContain('NaN');
    expect(form.match(/<g /g)).toHaveLength(form.match(/<\/g>/g)!.length);
    expect(form.match(/<svg/g)).toHaveLength(1);
  }
  expect(drawn.rows).toHaveLength(6);
  expect(drawn.rows.every((r) => r.length === drawn.columns.length)).toBe(true);
  expect(drawn.asks).toHaveLength(6);
  expect(
    drawCharts(
      asked(0, () => [], []),
      undefined,
    ),
  ).toBeUndefined();
});

test('values over six orders of magnitude, and all equal ones, are drawn', () => {
  for (const values of [(i: number) => [one(10 ** i)], () => [one(42)]]) {
    const drawn = drawCharts(asked(7, values, [SORT]), undefined)!;
    expect(drawn.svg).not.toContain('NaN');
    expect(drawn.svg.match(/<rect/g)).toHaveLength(7);
  }
});
