// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { textWidth } from '../../chart/text-width.ts';
import { drawBarGroups } from './bar-groups.ts';
import { drawBars } from './bars.ts';
import { drawCharts } from './charts.ts';
import { drawCurves } from './curve-lines.ts';
import type { Drawn } from './drawn.ts';
import { drawFactors } from './factor-cells.ts';
import { figurePage } from './figure-page.ts';
import { drawFrames } from './frame-times.ts';
import { drawRatioColumns } from './ratio-columns.ts';
import { drawRatios } from './ratio-rows.ts';
import { drawStanding } from './standing-rows.ts';
import { drawTrend } from './trend-lines.ts';
import { drawValue } from './value-points.ts';

const LONG = 'A notebook with a very long name that somebody in marketing thought of on a rainy afternoon';
const configuration = (id: number, model: string) =>
  ({
    id,
    modelId: id,
    maker: 'Ostler',
    model,
    name: `${LONG} ${id}`,
    deviceClass: 'LAPTOP',
    unit: 'Unit 1',
  }) as Schemas['ConfigurationRow'];
const devices = [configuration(1, 'Cob'), configuration(2, LONG), configuration(3, 'Reed')];
const metric = (id: number, more: object = {}) =>
  ({
    id,
    testId: id,
    test: id === 2 ? LONG : `Weir hash ${id}`,
    name: id === 2 ? LONG : `Weir hash ${id}`,
    unit: 'ops/s',
    direction: 'MORE_IS_BETTER',
    scale: 'RATIO',
    kind: 'NUMBER',
    main: true,
    suite: 'Kelpline Desk',
    suiteVersionId: 1,
    inputs: {},
    ...more,
  }) as unknown as Schemas['MetricRow'];
const one = (value?: number) => ({
  ...(value === undefined
    ? { why: 'crashed on export, three times in a row, after an hour' }
    : { value, low: value * 0.9, high: value * 1.1 }),
  runs: 3,
  sessions: 1,
  unmeasured: false,
  atLeast: false,
});
const asked = {
  metrics: [metric(1), metric(2)],
  rows: devices.map((c, i) => ({ configuration: c, values: [one([1234567, 0.00123, undefined][i]), one(5)] })),
  published: [{ modelId: 1, metricId: 1, value: 900_000, source: 'a journal' }],
  gone: [],
} as unknown as Schemas['AskedValues'];
const cell = (more: object) => ({ unmeasured: false, moreThanMost: false, threeEach: false, ...more });
const cells = [
  cell({ value: 3, ratio: 1.2, low: 1.1, high: 1.31, verdict: 'CLEAR_GAIN', size: '20.0 % higher' }),
  cell({ value: 2e6, ratio: 0.02, low: 0.01, high: 0.04, verdict: 'CANNOT_TELL', size: '98.0 % less time' }),
  cell({ ended: { state: 'FAILED', words: 'crashed on export, three times in a row, after an hour' } }),
  cell({ difference: 3.2, low: 1, high: 5, reading: 'CANNOT_TELL', value: 61 }),
  cell({ ratio: 2.73, bound: 'AT_LEAST', value: 9 }),
];
const comparison = {
  base: devices[0],
  sides: [0, 1].map((i) => ({
    configuration: devices[i + 1],
    changed: { differing: [{ role: 'ALSO_CHANGED', label: LONG }] },
    conditions: [],
    overall: { ratio: 1.2, verdict: 'PROBABLY_GAIN' },
  })),
  purpose: 'all-round use',
  materiality: 3,
  take: 'USUAL',
  baseTake: 'USUAL',
  rows: cells.map((c, i) => ({
    metric: metric(i + 1, i === 3 ? { scale: 'DIFFERENCE', unit: 'Cel' } : {}),
    value: 2_500_000,
    cells: [c, cells[(i + 1) % cells.length]],
  })),
} as unknown as Schemas['Comparison'];
const curve = { points: [16, 4096, 1 << 20].map((x) => ({ x: x * 1024, y: x * 7 })), peak: { x: 1 << 30, y: 7 << 20 } };
const measured = {
  metric: metric(1, { kind: 'CURVE', xUnit: 'By', unit: 'MB/s' }),
  sides: devices.map((c) => ({
    configurationId: c.id,
    curve,
    frames: {
      times: Array.from({ length: 900 }, (_, i) => 16 + (i % 50)),
      numbers: { meanRate: 61.23, lowMean: 41.7, lowPercentile: 44, stutters: 1234 },
    },
  })),
} as unknown as Schemas['ComparedMetric'];
const grid = {
  first: { key: 'a', label: LONG, levels: ['mains', LONG] },
  second: { key: 'b', label: 'Mode', levels: ['quiet', LONG, 'full'] },
  metric: metric(1),
  metrics: [metric(1)],
  blocks: [{ first: { words: `${LONG}. ${LONG}.` }, second: { words: LONG }, interaction: { words: 'Together.' } }],
  rows: ['mains', LONG].map((level) => ({
    level,
    cells: [1, 0.5, undefined].map((ratio) =>
      ratio === undefined ? { others: 0 } : { configuration: devices[0], ratio, value: 123456 * ratio, others: 0 },
    ),
  })),
} as unknown as Schemas['FactorGrid'];
const trends = {
  maker: 'Ostler',
  model: LONG,
  purpose: 'all-round use',
  materiality: 3,
  along: { key: 'os', label: 'Kernel' },
  steps: Array.from({ length: 23 }, (_, i) => ({ label: `6.12.${i} of some distribution`, configurations: [] })),
  lines: [],
  overall: {
    points: Array.from({ length: 23 }, (_, i) => ({ step: i, ratio: 1 + i / 20, low: 1, high: 2.5 })),
    steps: [{ to: 3, marked: true, verdict: 'CLEAR_LOSS' }],
  },
} as unknown as Schemas['Trends'];
const standing = {
  purpose: 'all-round use',
  scope: 'every test',
  leftOut: [],
  classes: [],
  metrics: [],
  placed: 3,
  rows: devices.map((c, i) => ({
    configuration: c,
    status: i === 2 ? 'PROVISIONAL' : 'PLACED',
    ...(i < 2 && { order: i + 1, placeBest: 1, placeWorst: 12 }),
    merit: -i,
    index: 1234.5 / (i + 1),
    low: 900 / (i + 1),
    high: 1400 / (i + 1),
    tests: 13,
    parts: [],
  })),
} as unknown as Schemas['Standings'];
const against = {
  date: false,
  without: 2,
  quantity: { key: 'price', label: 'Price', unit: 'EUR', divides: true },
  points: devices.map((c, i) => ({
    configurationId: c.id,
    x: 500 * (i + 1),
    shown: '500 EUR',
    index: 100 - i,
    frontier: i < 2,
  })),
} as unknown as Schemas['Against'];
const MARKS = [
  { path: 'M0 0', colour: '#000' },
  { path: 'M0 0', colour: '#111' },
];

const FIGURES: [string, Drawn | undefined][] = [
  ['bars', drawBars(asked, 'best', 2)],
  ['groups of bars', drawBarGroups(asked, 'best', 2)],
  ['charts', drawCharts(asked, 2)],
  [
    'ratios',
    drawRatios(
      comparison,
      comparison.rows.map((r) => r.metric.id),
    ),
  ],
  ['ratios of several', drawRatioColumns(comparison, comparison.rows, MARKS, undefined)],
  ['curves', drawCurves(measured, devices, 2)],
  ['frame times', drawFrames(measured, devices, 2)],
  ['factors', drawFactors(grid)],
  ['a trend', drawTrend(trends)],
  ['a standing', drawStanding(standing, { highlight: 2 })],
  ['best value', drawValue(against, standing, { highlight: 2 })],
];

interface Said {
  words: string;
  from: number;
  to: number;
  y: number;
  size: number;
}

/** Every text with where it stands, through whatever it is moved and scaled by. */
function said(svg: string): { width: number; texts: Said[] } {
  const root = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
  const width = Number(root.getAttribute('viewBox')!.split(' ')[2]);
  const texts = [...root.querySelectorAll('text')].map((t): Said => {
    const number = (name: string) => Number(t.getAttribute(name) ?? 0);
    const long = textWidth(t.textContent ?? '', number('font-size'), number('font-weight') || 400);
    const anchor = t.getAttribute('text-anchor');
    const x = number('x') - (anchor === 'end' ? long : anchor === 'middle' ? long / 2 : 0);
    let [from, to, y, scale] = [x, x + long, number('y'), 1];
    for (let at = t.parentElement; at; at = at.parentElement) {
      const moved = /translate\((-?[\d.]+)[ ,]+(-?[\d.]+)\)(?: scale\(([\d.]+)\))?/.exec(
        at.getAttribute('transform') ?? '',
      );
      if (!moved) continue;
      const by = Number(moved[3] ?? 1);
      [from, to, y, scale] = [
        from * by + Number(moved[1]),
        to * by + Number(moved[1]),
        y * by + Number(moved[2]),
        scale * by,
      ];
    }
    return { words: t.textContent ?? '', from, to, y, size: number('font-size') * scale };
  });
  return { width, texts };
}

describe('nothing is cut at an edge, and no words lie on others', () => {
  const forms = FIGURES.flatMap(([name, drawn]): [string, string][] => [
    [`${name} in an article`, drawn!.svg],
    ...(drawn!.narrow === undefined ? [] : [[`${name} on a phone`, drawn!.narrow] as [string, string]]),
    [`${name} as a picture`, figurePage(drawn!, drawn!.caption, 'light', 'data:,')],
  ]);
  it.each(forms)('%s', (_, svg) => {
    expect(svg).not.toMatch(/NaN|undefined|Infinity/);
    const { width, texts } = said(svg);
    expect(texts.length).toBeGreaterThan(3);
    for (const t of texts) {
      expect(t.from, t.words).toBeGreaterThanOrEqual(-1);
      expect(t.to, t.words).toBeLessThanOrEqual(width + 1);
    }
    for (const [i, a] of texts.entries())
      for (const b of texts.slice(i + 1)) {
        const sameLine = Math.abs(a.y - b.y) < 0.6 * Math.min(a.size, b.size);
        if (sameLine)
          expect(Math.min(a.to, b.to) - Math.max(a.from, b.from), `${a.words} | ${b.words}`).toBeLessThan(3);
      }
  });

  it('and each has a form for a phone, but for what only a picture has', () => {
    expect(FIGURES.filter(([, d]) => d!.narrow === undefined).map(([name]) => name)).toEqual(['ratios of several']);
  });
});
