import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { barsOf, drawBars } from './bars.ts';
import { valued } from '../question/number-words.ts';
import { proposals } from '../question/proposals.ts';
import { drawRatios } from './ratio-rows.ts';
import { drift, reportOf } from './shown.ts';
import { drawTrend } from './trend-lines.ts';
import { drawValue } from './value-points.ts';
import { pageOf, pagesOf, revealed, stepsOf } from '../stage/stage-order.ts';

const metric = {
  id: 1,
  test: 'Report <export>',
  name: 'Report <export>',
  unit: 's',
  direction: 'LESS_IS_BETTER',
  scale: 'RATIO',
  kind: 'NUMBER',
  main: true,
  suite: 'Kelpline Desk',
  suiteVersionId: 1,
} as unknown as Schemas['MetricRow'];

const configuration = (id: number, model: string, name = 'as delivered') =>
  ({
    id,
    modelId: id,
    maker: 'Pellow',
    model,
    name,
    deviceClass: 'LAPTOP',
    unit: 'Unit 1',
    retired: false,
  }) as Schemas['ConfigurationRow'];

const one = (value: number | undefined, more: Partial<Schemas['OneOf']> = {}): Schemas['OneOf'] => ({
  ...(value === undefined ? { why: 'failed on it' } : { value, low: value * 0.98, high: value * 1.02 }),
  runs: value === undefined ? 0 : 3,
  sessions: 1,
  unmeasured: false,
  atLeast: false,
  ...more,
});

const asked = (values: (number | undefined)[]): Schemas['AskedValues'] => ({
  metrics: [metric],
  rows: values.map((v, i) => ({ configuration: configuration(i + 1, `Drift ${i + 1}`), values: [one(v)] })),
  published: [],
  gone: [],
});

describe('bars', () => {
  it('stand best first, and who has no value comes last with the reason', () => {
    const { bars } = barsOf(asked([60, undefined, 40, 50]), 'best', 3)!;
    expect(bars.map((b) => b.id)).toEqual([3, 4, 1, 2]);
    expect(bars[0]!.highlight).toBe(true);
    expect(barsOf(asked([60, undefined, 40]), 'given', undefined)!.bars.map((b) => b.id)).toEqual([1, 2, 3]);
  });

  it('begin at zero, whatever the values are', () => {
    const drawn = drawBars(asked([100, 98]), 'best', undefined)!;
    const widths = [...drawn.svg.matchAll(/<rect x="200.0"[^>]* width="([\d.]+)"/g)].map((m) => Number(m[1]));
    expect(widths[0]! / widths[1]!).toBeCloseTo(98 / 100, 2);
    expect(drawn.caption).toContain('less is better');
    expect(drawn.rows).toHaveLength(2);
  });

  it('escape every word and know what is missing', () => {
    const drawn = drawBars(asked([100, undefined]), 'best', undefined)!;
    expect(drawn.svg).not.toContain('<export>');
    expect(drawn.svg).toContain('failed on it');
    expect(drawn.alt).toContain('1 without a value');
    expect(drawBars({ ...asked([1]), metrics: [] }, 'best', undefined)).toBeUndefined();
  });

  it('have as many digits as their interval is worth', () => {
    expect(valued(one(55.6646, { low: 55, high: 56.3 }), metric)).toBe('55.7 s');
    expect(valued(one(2575.57, { low: 2539, high: 2613 }), { ...metric, unit: 'MB/s' })).toBe('2\u202f576 MB/s');
    expect(valued(one(undefined), metric)).toBe('–');
  });
});

const cell = (ratio: number | undefined, verdict?: string) =>
  ({
    ...(ratio === undefined
      ? { ended: { state: 'FAILED', words: 'crashed' } }
      : { ratio, low: ratio * 0.99, high: ratio * 1.01, verdict, size: '15 % less time' }),
    unmeasured: false,
    moreThanMost: false,
  }) as unknown as Schemas['ComparedCell'];
const comparison = (cells: Schemas['ComparedCell'][]) =>
  ({
    base: configuration(1, 'Drift 11'),
    sides: [{ configuration: configuration(2, 'Drift 13'), changed: { differing: [] }, conditions: [] }],
    purpose: 'all-round use',
    materiality: 3,
    rows: cells.map((c, i) => ({
      metric: { ...metric, id: i + 1, test: `Test ${i + 1}`, name: `Test ${i + 1}`, inputs: {} },
      cells: [c],
    })),
  }) as unknown as Schemas['Comparison'];

describe('the form for a phone', () => {
  const shapes = (svg: string) => [svg.match(/<circle/g)?.length ?? 0, svg.match(/<rect/g)?.length ?? 0];
  const said = (svg: string) => [...svg.matchAll(/<text[^>]*>([^<]*)<\/text>/g)].map((m) => m[1]!);
  const across = (svg: string) =>
    [...svg.matchAll(/ (?:x|x1|x2|cx)="(-?[\d.]+)"/g)].map((m) => Number(m[1])).filter((x) => !Number.isNaN(x));
  it.each([
    ['bars', drawBars(asked([100, 98, undefined]), 'best', 2)!],
    ['ratios', drawRatios(comparison([cell(1.2, 'CLEAR_GAIN'), cell(0.8, 'CLEAR_LOSS'), cell(undefined)]), undefined)!],
  ])('of %s shows the same marks and words, all of them on the screen', (_, drawn) => {
    expect(shapes(drawn.narrow!)).toEqual(shapes(drawn.svg));
    expect(said(drawn.narrow!).length).toBeGreaterThan(3);
    for (const text of said(drawn.svg).filter((t) => /\d/.test(t) && !t.endsWith('…')))
      expect(
        said(drawn.narrow!).some((t) => t.includes(text)),
        text,
      ).toBe(true);
    for (const x of across(drawn.narrow!)) {
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(350);
    }
  });
});

describe('ratios and what they suggest', () => {
  it('show a failure in its line, and count both ends', () => {
    const drawn = drawRatios(
      comparison([cell(1.2, 'CLEAR_GAIN'), cell(0.8, 'CLEAR_LOSS'), cell(undefined)]),
      undefined,
    )!;
    expect(drawn.svg).toContain('crashed');
    expect(drawn.alt).toContain('1 better, 1 worse, 0 level');
    expect(drawRatios(comparison([cell(1.2)]), [99])).toBeUndefined();
  });

  it('are proposed where they are clear, the largest first, and failures as they are', () => {
    const all = proposals(
      comparison([
        cell(1.2, 'CLEAR_GAIN'),
        cell(1.6, 'CLEAR_GAIN'),
        cell(1.01, 'LEVEL'),
        cell(0.7, 'CLEAR_LOSS'),
        cell(undefined),
      ]),
      [],
    );
    expect(all.map((p) => [p.side, p.key])).toEqual([
      ['strong', 'ratio:2'],
      ['strong', 'ratio:1'],
      ['weak', 'ratio:4'],
      ['weak', 'failed:5'],
    ]);
    expect(all[0]!.number).toEqual({
      question: { of: 'ratio', configuration: 2, base: 1, metric: 2 },
      words: '15 % less time',
    });
  });
});

describe('the stage', () => {
  it('show every row, a page after the other', () => {
    for (const count of [1, 9, 10, 16, 40])
      for (const order of ['worst', 'best', 'all'] as const) {
        const seen = new Set<number>();
        for (let step = 0; step < stepsOf(count, order); step++) {
          const page = pageOf(count, step, order);
          expect(page).toBeGreaterThanOrEqual(0);
          expect(page).toBeLessThan(pagesOf(count));
          for (let i = page * 9; i < Math.min(count, page * 9 + 9); i++)
            if (revealed(count, step, order)(i)) seen.add(i);
        }
        expect(seen.size, `${count} ${order}`).toBe(count);
      }
    expect(pageOf(0, 0, 'worst')).toBe(0);
  });

  it('reveals from the worst, from the best, or everything at once', () => {
    const shown = (step: number, order: 'worst' | 'best' | 'all') => [0, 1, 2].filter(revealed(3, step, order));
    expect(shown(0, 'worst')).toEqual([]);
    expect(shown(1, 'worst')).toEqual([2]);
    expect(shown(2, 'best')).toEqual([0, 1]);
    expect(shown(0, 'all')).toEqual([0, 1, 2]);
  });
});

describe('what is published', () => {
  it('freezes the numbers that stand for something, and counts those that do not', () => {
    const now = { forms: ['1.19×'], amounts: [1.19], says: 'Export.', value: 1.19, unit: '1' };
    const report = reportOf(['Runs [1.19×](number:a) and [1.30×](number:b) and [gone](number:c).'], {
      a: { state: 'known', now },
      b: { state: 'known', now },
      c: { state: 'gone', why: 'it is not there any more' },
    });
    expect(report.numbers).toBe(3);
    expect(report.off).toBe(2);
    expect(Object.keys(report.shown!.numbers!)).toEqual(['a', 'b']);
    expect(report.stops).toBeUndefined();
    expect(reportOf(['[1](number:a)'], { a: { state: 'waiting' } }).stops).toContain('looked up');
  });
});

describe('an edition that is older than the ledger', () => {
  const frozen = {
    7: { numbers: { a: { words: '1.19×', says: '' } } },
    8: { svg: '<svg/>', caption: 'Export', rows: [['Drift', '56 s']] },
  };
  const live = (ratio: number) => ({ forms: [`${ratio}×`], amounts: [ratio], says: '' });
  it('says what would be other now, and nothing where nothing would', () => {
    const same = new Map([
      [7, { numbers: 1, off: 0, live: { a: live(1.19) } }],
      [8, { numbers: 0, off: 0, shown: { rows: [['Drift', '56 s']] } }],
    ]);
    expect(drift(frozen, same)).toEqual([]);
    const other = new Map([
      [7, { numbers: 1, off: 0, live: { a: live(1.23) } }],
      [8, { numbers: 0, off: 0, shown: { rows: [['Drift', '57 s']] } }],
    ]);
    expect(drift(frozen, other)).toEqual(['“1.19×” would be 1.23×', 'the figure “Export…” would be another']);
    expect(drift(frozen, new Map())).toEqual([]);
  });
});

describe('trends and best value', () => {
  const trends = {
    maker: 'Ostler',
    model: 'Cob mini',
    purpose: 'all-round use',
    materiality: 3,
    along: { key: 'os.kernel', label: 'Kernel' },
    steps: ['5.19', '6.1', '6.12'].map((label) => ({ label, configurations: [] })),
    lines: [{ points: [{ step: 0, ratio: 1 }, { step: 1 }, { step: 2, ratio: 1.2 }] }],
    overall: {
      points: [
        { step: 0, ratio: 1, low: 1, high: 1 },
        { step: 1, ratio: 0.95, low: 0.93, high: 0.97 },
        { step: 2, ratio: 1.1, low: 1.07, high: 1.13 },
      ],
      steps: [
        { to: 1, marked: true, verdict: 'CLEAR_LOSS' },
        { to: 2, marked: false, verdict: 'SMALL_GAIN' },
      ],
    },
  } as unknown as Schemas['Trends'];

  it('draw better upwards, and say which steps are clear', () => {
    const drawn = drawTrend(trends)!;
    const ys = [...drawn.svg.matchAll(/<circle cx="[\d.]+" cy="([\d.]+)"/g)].map((m) => Number(m[1]));
    expect(ys[2]!).toBeLessThan(ys[0]!);
    expect(ys[1]!).toBeGreaterThan(ys[0]!);
    expect(drawn.alt).toContain('from 5.19 to 6.12 1.10×');
    expect(drawn.alt).toContain('1 step is clear');
    expect(drawn.rows).toHaveLength(3);
    expect(drawTrend({ ...trends, steps: trends.steps.slice(0, 1) })).toBeUndefined();
  });

  const standing = {
    purpose: 'all-round use',
    scope: 'every test',
    leftOut: [],
    rows: [1, 2, 3].map((id) => ({ configuration: configuration(id, `Drift ${id}`) })),
  } as unknown as Parameters<typeof drawValue>[1];
  const against = {
    date: false,
    without: 2,
    quantity: { key: 'price', label: 'Price', unit: 'EUR', divides: true },
    points: [
      { configurationId: 1, x: 500, shown: '500 EUR', index: 100, frontier: true },
      { configurationId: 2, x: 900, shown: '900 EUR', index: 90, frontier: false },
      { configurationId: 3, x: 1000, shown: '1 000 EUR', index: 140, frontier: true },
      { configurationId: 99, x: 1, shown: '1 EUR', index: 1, frontier: false },
    ],
  } as unknown as Parameters<typeof drawValue>[0];

  it('lay out who is ranked, name whom nobody beats, and say who is left out', () => {
    const drawn = drawValue(against, standing, { highlight: 2 })!;
    expect(drawn.rows.map((r) => r[0])).toEqual([
      'Pellow Drift 1, as delivered',
      'Pellow Drift 2, as delivered',
      'Pellow Drift 3, as delivered',
    ]);
    expect(drawn.alt).toContain('Nothing beats Pellow Drift 1, Pellow Drift 3 in both');
    expect(drawn.alt).toContain('Pellow Drift 2 has index 90.0 at 900 EUR');
    expect(drawn.caption).toContain('2 without a known price');
    expect(drawValue({ ...against, points: against.points.slice(0, 1) }, standing, {})).toBeUndefined();
  });
});
