// @vitest-environment jsdom
import { describe, expect, test } from 'vitest';
import type { Schemas } from '../api/client.ts';
import { comparisonCsv } from '../export/csv.ts';
import { byWords } from '../writeup/question/asked.ts';
import { drawFactors } from '../writeup/figure/factor-cells.ts';
import { figurePage } from '../writeup/figure/figure-page.ts';
import { severalPage, sidePage } from './ExportTexts.tsx';
import { readingsFigure } from './line/figure-readings.ts';
import { sections, type ComparedRow } from './line/order.ts';
import { escaped, lines, PAINTS } from '../export/page.ts';

const row = (id: number, name: string, more: Partial<ComparedRow['cells'][number]> = {}): ComparedRow => ({
  metric: {
    id,
    testId: id,
    test: name,
    name,
    unit: 'MB/s',
    group: 'STORAGE',
    suite: 'Saltern',
    version: '2',
    direction: 'MORE_IS_BETTER',
    scale: 'RATIO',
    kind: 'NUMBER',
    inputs: {},
    main: true,
  } as unknown as Schemas['MetricRow'],
  value: 100,
  runs: 3,
  sessions: 1,
  atLeast: false,
  cells: [
    {
      value: 110,
      runs: 3,
      ratio: 1.1,
      low: 1.05,
      high: 1.15,
      verdict: 'CLEAR_GAIN',
      moreThanMost: false,
      unmeasured: false,
      threeEach: false,
      percent: 4,
      ...more,
    },
  ],
});
const configuration = (id: number, model: string) =>
  ({
    id,
    modelId: id,
    maker: 'Quenby',
    model,
    deviceClass: 'LAPTOP',
    unit: 'Unit 1',
    name: 'firmware 1.04',
    retired: false,
  }) as Schemas['ConfigurationRow'];
const comparison = (rows: ComparedRow[]): Schemas['Comparison'] => ({
  base: configuration(1, 'Folio <14>'),
  purpose: 'all-round use',
  materiality: 3,
  rows,
  leftOut: [],
  take: 'USUAL',
  baseTake: 'USUAL',
  notCounted: 0,
  published: [],
  sides: [
    {
      configuration: configuration(2, '=Drift & 13'),
      changed: {
        differing: [
          {
            key: 'power.source',
            label: 'Power',
            group: 'Power',
            unit: '',
            role: 'ALSO_CHANGED',
            cells: [{ shown: 'mains' }, { shown: 'battery' }],
          },
        ],
        partly: [],
        same: [],
        configurations: [],
        base: 1,
      },
      conditions: [{ matter: 'DAYS', base: '', other: '3 days later', disturbs: false }],
      clean: false,
      unlikeUnits: [],
      noOverall: 'No test was run on both.',
    },
  ],
});
const drawn = (rows: ComparedRow[]) =>
  sidePage(
    comparison(rows),
    sections(rows, 'group', 0).flatMap((p) => p.rows),
    0,
    undefined,
    'light',
    'data:font/woff2;base64,AA==',
  );

describe('the picture to take along', () => {
  test('is well formed and keeps markup in names as text', () => {
    const svg = drawn([row(1, 'Read "<b>"')]);
    expect(svg).toContain('Quenby Folio &#60;14&#62;, firmware 1.04');
    expect(svg).not.toContain('<b>');
    expect(svg.match(/<text/g)!.length).toBe(svg.match(/<\/text>/g)!.length);
    expect(svg).toContain('Also changed: power');
    expect(escaped(`a&b<c>"d'`)).toBe('a&#38;b&#60;c&#62;&#34;d&#39;');
  });

  test('two hundred lines stay on the page, in columns', () => {
    const svg = drawn(Array.from({ length: 200 }, (_, i) => row(i + 1, `Test ${i}`)));
    const ys = [...svg.matchAll(/<text x="([\d.]+)" y="([\d.]+)"/g)].map((m) => ({ x: Number(m[1]), y: Number(m[2]) }));
    expect(Math.max(...ys.map((p) => p.y))).toBeLessThan(1080);
    expect(Math.max(...ys.map((p) => p.x))).toBeLessThanOrEqual(1920);
    expect(svg).not.toMatch(/NaN|undefined|Infinity/);
  });

  test('what it was narrowed to goes along', () => {
    const all = comparison([row(1, 'Weir', { ratio: 1.2 })]);
    const by = { without: ['group:STORAGE'], take: 'ALL' } as const;
    const asked = byWords({ ...by, without: [...by.without] }, { ...all, take: 'ALL', baseTake: 'ALL' });
    expect(asked).toBe('without Storage, in every session');
    const again = { ...all, take: 'ALL', baseTake: 'ALL' } as const;
    const taken = { ...by, without: [...by.without] };
    expect(sidePage(again, all.rows, 0, taken, 'light', 'data:,')).toContain(`Asked ${asked}.`);
    expect(severalPage(again, all.rows, [{ path: 'M0 0', colour: '#000' }], taken, 'light', 'data:,')).toContain(asked);
    expect(sidePage(all, all.rows, 0, undefined, 'light', 'data:,')).not.toContain('Asked');
  });

  test('nothing in common and unknown spread are drawn without numbers that are not there', () => {
    expect(drawn([])).not.toMatch(/NaN|undefined/);
    expect(
      drawn([row(1, 'Read', { low: undefined, high: undefined, size: '10.0 % higher', verdict: 'CANNOT_TELL' })]),
    ).toContain('10.0 % higher, too close to call');
    expect(
      drawn([
        row(1, 'Heat', {
          ratio: undefined,
          low: -1,
          high: 2,
          verdict: undefined,
          difference: 0.5,
          reading: 'CANNOT_TELL',
        }),
      ]),
    ).toContain('too close to call +0.5 MB/s');
  });

  test('several sides share an axis, each with its mark, and one that has no result has none', () => {
    const one = comparison([]);
    const rows = [
      {
        ...row(1, 'Read'),
        cells: [
          row(1, 'Read').cells[0]!,
          { moreThanMost: false, unmeasured: false, threeEach: false, outReason: 'not run' },
        ],
      },
    ];
    const two = { ...one, rows, sides: [one.sides[0]!, { ...one.sides[0]!, configuration: configuration(3, 'Spar') }] };
    const svg = severalPage(
      two,
      rows,
      [
        { path: 'M0 0h1', colour: '#111111' },
        { path: 'M0 0h2', colour: '#222222' },
      ],
      undefined,
      'dark',
      'data:,',
    );
    // In the legend and below its column, and one in the row that it has.
    expect(svg.match(/M0 0h1/g)).toHaveLength(3);
    expect(svg.match(/M0 0h2/g)).toHaveLength(2);
    expect(svg).not.toMatch(/NaN|undefined/);
  });

  test('a transparent one has no paper', () => {
    const rows = [row(1, 'Read')];
    const svg = sidePage(comparison(rows), rows, 0, undefined, 'transparent', 'data:,');
    expect(svg).not.toContain('<rect width="1920"');
  });
});

describe('the other pictures', () => {
  const effect = (words: string) => ({ ratio: 1.1, low: 1, high: 1.2, words });
  const grid: Schemas['FactorGrid'] = {
    choices: [],
    metrics: [],
    dropped: [],
    first: { key: 'a', label: 'Device', levels: ['Folio', 'Drift'] },
    second: { key: 'b', label: 'System', levels: ['8', '<9>'] },
    rows: [
      { level: 'Folio', cells: [{ configuration: configuration(1, 'Folio'), others: 0, ratio: 1 }, { others: 0 }] },
      {
        level: 'Drift',
        cells: [
          { configuration: configuration(2, 'Drift'), others: 1, ratio: 1.25 },
          { configuration: configuration(3, 'Drift'), others: 0 },
        ],
      },
    ],
    blocks: Array.from({ length: 9 }, (_, i) => ({
      firstFrom: 'Folio',
      firstTo: 'Drift',
      secondFrom: '8',
      secondTo: String(i),
      first: effect(`first ${i}`),
      second: effect('second'),
      turns: false,
      interaction: effect('together'),
    })),
  };

  test('the grid has its holes, and stays on the page', () => {
    const drawn = drawFactors(grid)!;
    expect(drawn.svg).toContain('not measured');
    expect(drawn.svg).toContain('1.250×');
    expect(drawn.svg).toContain('&#60;9&#62;');
    expect(figurePage(drawn, drawn.caption, 'light', 'data:,')).not.toMatch(/NaN|undefined/);
    expect(drawFactors({ ...grid, first: undefined })).toBeUndefined();
  });

  test('readings are dots, and those that were set aside are hollow', () => {
    const line = (value: number, asideReason?: string) => ({
      id: value,
      configurationId: 1,
      sessionId: 1,
      runNumber: 1,
      value,
      resolution: 0.1,
      finishedAt: '',
      evidence: 0,
      conditions: [],
      marks: [],
      ...(asideReason ? { asideReason } : {}),
    });
    const data = {
      metric: row(1, 'Read').metric,
      sides: [
        { configurationId: 1, sessions: [], readings: [line(100), line(70, 'An update ran')] },
        { configurationId: 2, sessions: [], readings: [] },
      ],
      others: [],
    } as Schemas['ComparedMetric'];
    const svg = readingsFigure(
      data,
      (id) => `No. ${id}`,
      [
        { path: 'M0 0h1', colour: '#111111' },
        { path: 'M0 0h2', colour: '#222222' },
      ],
      (v) => (v - 70) / 30,
      [70, 100],
      'Read: level.',
      PAINTS.dark,
      'data:,',
    );
    expect(svg.match(/fill="#111111"/g)).toHaveLength(1);
    expect(svg.match(/fill="none" stroke="#111111"/g)).toHaveLength(1);
    expect(svg).not.toMatch(/NaN|undefined/);
  });

  test('long words take several lines', () => {
    const { drawn, height } = lines(0, 0, 'one two three four five six seven eight nine ten', 20, '#000000', 150);
    expect(drawn.match(/<text/g)!.length).toBeGreaterThan(2);
    expect(height).toBeGreaterThan(50);
  });
});

describe('the table to take along', () => {
  test('has a line for each test and side in full precision, the overall, and what else changed', () => {
    const lines = comparisonCsv(comparison([row(1, 'Read, "big"', { ratio: 1.0384918691234 })]))
      .trimEnd()
      .split('\r\n');
    expect(lines).toHaveLength(1 + 1 + 1 + 2);
    expect(lines[1]).toContain('"Read, ""big"""');
    expect(lines[1]).toContain('1.0384918691234');
    expect(lines[2]).toContain('Overall');
    expect(lines[3]).toContain('mains → battery');
    expect(new Set(lines.slice(0, 3).map((l) => l.replace(/"(""|[^"])*"/g, '').split(',').length)).size).toBe(1);
  });

  test('a text that a spreadsheet would compute is held back', () => {
    expect(comparisonCsv({ ...comparison([row(1, '=1+1')]) })).toContain("'=1+1");
  });
});
