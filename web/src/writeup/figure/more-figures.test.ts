import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { drawBarGroups } from './bar-groups.ts';
import { aboutStanding, aboutThese, kindsFor, piecesOf, type Kind } from '../question/begin.ts';
import { drawCurves } from './curve-lines.ts';
import { drawFactors } from './factor-cells.ts';
import { drawFrames, longest } from './frame-times.ts';
import { drawStanding } from './standing-rows.ts';
import type { StandingsAsk } from '../question/asked.ts';
import { copiedNumber, pasted } from '../question/number-copy.ts';
import { nextNumber } from '../question/number-words.ts';
import { afterKey, BEGINNING, forward, type StageState } from '../stage/stage-state.ts';

const configuration = (id: number, model: string) =>
  ({
    id,
    modelId: 100 + id,
    maker: 'Pellow',
    model,
    name: 'as delivered',
    deviceClass: 'LAPTOP',
    unit: 'Unit 1',
    retired: false,
  }) as Schemas['ConfigurationRow'];
const metric = (id: number, more: Partial<Schemas['MetricRow']> = {}) =>
  ({
    id,
    test: `Test ${id}`,
    name: `Test ${id}`,
    unit: 'MB/s',
    direction: 'MORE_IS_BETTER',
    scale: 'RATIO',
    kind: 'NUMBER',
    main: true,
    ...more,
  }) as Schemas['MetricRow'];
const one = (value?: number) =>
  ({
    ...(value === undefined ? { why: 'failed on it' } : { value, low: value, high: value }),
    runs: 3,
    sessions: 1,
    unmeasured: false,
    atLeast: false,
  }) as Schemas['OneOf'];
const both = [configuration(1, 'Drift 11'), configuration(2, 'Drift 13')];

describe('several values of each device', () => {
  const asked = {
    metrics: [metric(1), metric(2), metric(3, { unit: 's', direction: 'LESS_IS_BETTER' })],
    rows: both.map((configuration, i) => ({ configuration, values: [one(100 + i), one(50), one(7)] })),
    published: [{ modelId: 101, metricId: 2, value: 55, source: 'a journal' }],
    gone: [],
  } as unknown as Schemas['AskedValues'];

  it('share a scale from zero, and what has another unit is left out', () => {
    const drawn = drawBarGroups(asked, 'best', 2)!;
    const widths = [...drawn.svg.matchAll(/<rect x="210.0"[^>]* width="([\d.]+)"/g)].map((m) => Number(m[1]));
    expect(widths).toHaveLength(4);
    expect(widths[1]! / widths[0]!).toBeCloseTo(50 / 101, 2);
    expect(drawn.columns).toEqual(['device', 'Test 1, MB/s', 'Test 2, MB/s']);
    expect(drawn.rows[0]![0]).toContain('Drift 13');
    expect(drawn.svg.match(/stroke="var\(--gold\)"/g)).toHaveLength(1);
  });

  it('say for each number what it stands for', () => {
    const drawn = drawBarGroups(asked, 'given', undefined)!;
    expect(drawn.asks![0]).toEqual([
      undefined,
      { of: 'value', configuration: 1, metric: 1 },
      { of: 'value', configuration: 1, metric: 2 },
    ]);
  });
});

describe('curves and frame times', () => {
  const curve = (scale: number) => ({
    points: [16, 64, 1024].map((x) => ({ x: x * 1024, y: x * scale })),
    peak: { x: 1024 * 1024, y: 1024 * scale },
    overBase: [],
    dents: [],
    nearPeakFrom: 1024,
    readingId: 1,
  });
  const curves = {
    metric: metric(1, { kind: 'CURVE', xUnit: 'By' }),
    sides: [
      { configurationId: 1, curve: curve(1) },
      { configurationId: 2, curve: curve(2) },
    ],
  } as unknown as Schemas['ComparedMetric'];

  it('draws a line for each that has one, higher where it is more', () => {
    const drawn = drawCurves(curves, both, 2)!;
    const lines = [...drawn.svg.matchAll(/<path d="M([\d.]+) ([\d.]+)/g)].map((m) => Number(m[2]));
    expect(lines).toHaveLength(2);
    expect(lines[1]!).toBeLessThan(lines[0]!);
    expect(drawn.alt).toContain('2 curves');
    expect(drawn.rows).toHaveLength(3);
    expect(drawn.columns).toHaveLength(3);
    expect(drawCurves({ ...curves, sides: [] }, both, undefined)).toBeUndefined();
  });

  it('keeps every stutter, however many frames there are', () => {
    const times = Array.from({ length: 100_000 }, (_, i) => (i === 77_777 ? 250 : 16));
    expect(longest(times, 600)).toHaveLength(600);
    expect(Math.max(...longest(times, 600))).toBe(250);
    expect(longest([1, 2], 600)).toEqual([1, 2]);
    const frames = {
      metric: metric(1),
      sides: [
        {
          configurationId: 1,
          frames: { times, numbers: { meanRate: 62, lowMean: 40, lowPercentile: 44, stutters: 1 }, readingId: 1 },
        },
      ],
    } as unknown as Schemas['ComparedMetric'];
    const drawn = drawFrames(frames, both, undefined)!;
    expect(drawn.alt).toContain('Drift 11');
    expect(drawn.alt).not.toContain('Drift 13');
    expect(drawn.rows[0]![5]).toBe('1');
    expect(drawn.svg.length).toBeLessThan(40_000);
  });
});

describe('two factors', () => {
  const grid = {
    first: { key: 'power', label: 'Power', levels: ['mains', 'battery'] },
    second: { key: 'mode', label: 'Mode <x>', levels: ['quiet', 'full'] },
    metric: metric(1),
    metrics: [metric(1)],
    covers: 'DAY_TO_DAY',
    blocks: [],
    choices: [],
    rows: [
      { level: 'mains', cells: [{ configuration: both[0], ratio: 1, value: 100, others: 0 }, { others: 0 }] },
      {
        level: 'battery',
        cells: [
          { configuration: both[1], ratio: 0.5, value: 50, others: 0 },
          { configuration: both[1], ratio: 2, value: 200, others: 0 },
        ],
      },
    ],
  } as unknown as Schemas['FactorGrid'];

  it('draws bars from zero, says what was not measured, and escapes', () => {
    const drawn = drawFactors(grid)!;
    const widths = [...drawn.svg.matchAll(/<rect [^>]* width="([\d.]+)"/g)].map((m) => Number(m[1]));
    expect(widths).toHaveLength(3);
    expect(widths[1]! / widths[0]!).toBeCloseTo(0.5, 2);
    expect(drawn.svg).toContain('not measured');
    expect(drawn.svg).not.toContain('<x>');
    expect(drawn.rows[0]![2]).toBe('not measured');
    expect(drawFactors({ ...grid, rows: [] })).toBeUndefined();
  });
});

describe('a standing by one test', () => {
  const ranked = {
    purpose: 'all-round use',
    scope: 'Report export',
    leftOut: [],
    metric: { unit: 's', direction: 'LESS_IS_BETTER' },
    rows: both.map((c, i) => ({
      configuration: c,
      status: 'PLACED',
      order: i + 1,
      merit: -i,
      index: 100 - 20 * i,
      low: 98 - 20 * i,
      high: 102 - 20 * i,
      value: 40 + 10 * i,
      runs: 3,
      tests: 1,
    })),
  } as unknown as Schemas['Standings'];
  it('shows the scores that readers look for, in the page, on a phone and in the table', () => {
    const drawn = drawStanding(ranked, { asked: { metric: 9 } })!;
    for (const svg of [drawn.svg, drawn.narrow!]) expect(svg).toMatch(/>40(\.0)? s<.*>50(\.0)? s</);
    expect(drawn.columns[2]).toBe('s');
    expect(drawn.rows.map((r) => r.at(-1))).toEqual(['3', '3']);
    expect(drawn.caption).toMatch(/^Standing by Report export \(less is better\)/);
    const whole = drawStanding({ ...ranked, metric: undefined }, {})!;
    expect(whole.columns[2]).toBe('index');
    expect(whole.svg).not.toContain(' s<');
  });
});

describe('what a kind begins with', () => {
  const kind = (pieces: Kind['pieces']) => ({ pieces });
  it('is filled with what is on the screen', () => {
    const of = aboutThese([both[1]!], both[0]);
    expect(of.begins).toBe('COMPARISON');
    const pieces = piecesOf(
      kind([
        { kind: 'HEADING', text: 'What we think' },
        { kind: 'FIGURE', figure: 'ratios' },
        { kind: 'TABLE', figure: 'standing' },
        { kind: 'FIGURE', figure: 'trend' },
        { kind: 'FIGURE', figure: 'curves' },
        { kind: 'METHOD' },
      ]),
      of,
    );
    expect(pieces.map((p) => p.kind)).toEqual(['HEADING', 'FIGURE', 'TABLE', 'FIGURE', 'METHOD']);
    expect(pieces[1]!.body).toEqual({ question: { of: 'ratios', configuration: 2, base: 1 } });
    expect(pieces[3]!.body).toEqual({ question: { of: 'trend', model: 102 } });
    expect(pieces[4]!.body).toEqual({ configurations: [2, 1] });
  });

  it('asks what the view asked: the same parts left out, the same purpose, the same sessions', () => {
    const by = { purpose: 2, without: ['group:STORAGE'], take: 'ALL', materiality: 5 } as const;
    const pieces = piecesOf(
      kind([
        { kind: 'FIGURE', figure: 'ratios' },
        { kind: 'FIGURE', figure: 'standing' },
        { kind: 'FIGURE', figure: 'value' },
      ]),
      aboutThese([both[1]!], both[0], { ...by, without: [...by.without] }),
    );
    const asked = {
      deviceClass: [both[1]!.deviceClass],
      purpose: 2,
      without: ['group:STORAGE'],
      take: 'ALL',
      base: 1,
    };
    expect(pieces.map((p) => p.body)).toEqual([
      { question: { of: 'ratios', configuration: 2, base: 1, by } },
      { question: { of: 'standing', highlight: 2, asked } },
      { question: { of: 'value', quantity: 'price', highlight: 2, asked } },
    ]);
  });

  it('ranks by what was ranked, highlights nobody who was not meant, and draws everybody who is in it', () => {
    const asked = { metric: 9, deviceClass: ['PHONE'] } satisfies StandingsAsk;
    const of = aboutStanding('PHONE', undefined, asked, both);
    const pieces = piecesOf(
      kind([{ kind: 'TABLE', figure: 'standing' }, { kind: 'FIGURE', figure: 'bars' }, { kind: 'METHOD' }]),
      of,
      { bars: 9 },
    );
    expect(pieces.map((p) => p.body)).toEqual([
      { question: { of: 'standing', asked, highlight: undefined } },
      { question: { of: 'bars', metric: 9, configurations: [1, 2], highlight: undefined } },
      { configurations: [1, 2] },
    ]);
  });

  it('leaves out what cannot be asked', () => {
    const alone = aboutThese([both[1]!], undefined);
    expect(alone.begins).toBe('MODEL');
    expect(piecesOf(kind([{ kind: 'FIGURE', figure: 'ratios' }, { kind: 'POINTS' }]), alone)).toHaveLength(1);
    const nobody = aboutStanding(undefined, undefined);
    expect(piecesOf(kind([{ kind: 'FACTS' }, { kind: 'METHOD' }, { kind: 'VERDICT' }]), nobody)).toEqual([
      { kind: 'VERDICT', body: { line: '' } },
    ]);
    expect(piecesOf(kind([{ kind: 'FIGURE', figure: 'curves' }]), alone, { curves: 9 }).map((p) => p.body)).toEqual([
      { question: { of: 'curves', metric: 9, configurations: [2], highlight: 2 } },
    ]);
  });

  it('offers first what is for such a view', () => {
    const all = (['MODEL', 'TREND', 'COMPARISON'] as const).map((begins, id) => ({ id, begins })) as Kind[];
    expect(kindsFor(all, 'TREND').map((k) => k.begins)).toEqual(['TREND', 'MODEL', 'COMPARISON']);
  });
});

describe('a number that is copied elsewhere', () => {
  const question = { of: 'ratio', configuration: 2, base: 1, metric: 7 } as const;
  it('is a number of the text that it is pasted into', () => {
    const text = `faster by ${copiedNumber('1.19×', question)} and ${copiedNumber('1.30×', { ...question, metric: 8 })}`;
    const taken = pasted(text, { n1: { of: 'overall', configuration: 2, base: 1 } }, nextNumber)!;
    expect(taken.text).toMatch(/^faster by \[1\.19×\]\(number:\w+\) and \[1\.30×\]\(number:\w+\)$/);
    expect(Object.values(taken.numbers)).toHaveLength(3);
    expect(Object.values(taken.numbers)[1]).toEqual(question);
  });

  it('is words only where it stands for nothing, and any other text is left alone', () => {
    expect(pasted('nothing [here](https://example.org)', {}, nextNumber)).toBeUndefined();
    expect(pasted('[1×](yarrowmark:!!!)', {}, nextNumber)).toBeUndefined();
    for (const wrong of [
      '{}',
      '[]',
      'null',
      '{"of":"ratio","configuration":1}',
      '{"of":"value","configuration":"1","metric":2}',
      'x',
    ])
      expect(pasted(`[1×](yarrowmark:${btoa(wrong)})`, {}, nextNumber)).toBeUndefined();
  });
});

describe('the stage', () => {
  const at = (scene: number, step: number): StageState => ({ ...BEGINNING, scene, step });
  it('goes row by row and then to the next scene, and stops at both ends', () => {
    expect(forward(at(0, 0), 3, 2)).toEqual(at(0, 1));
    expect(forward(at(0, 2), 3, 2)).toEqual(at(1, 0));
    expect(forward(at(1, 2), 3, 2)).toEqual(at(1, 2));
    expect(afterKey(at(-1, 0), 'ArrowLeft', 1, 2)).toEqual(at(-1, 0));
    expect(afterKey(at(1, 0), 'PageUp', 3, 2)).toEqual(at(0, 0));
  });
  it('counts what is pressed before the rows are known, and forgets what was pressed too often', () => {
    expect(forward(at(0, 0), Infinity, 2)).toEqual(at(0, 1));
    expect(afterKey(at(0, 7), 'ArrowLeft', 3, 2)).toEqual(at(0, 1));
    expect(forward(at(0, 7), 3, 2)).toEqual(at(1, 0));
  });
  it('answers a clicker, and knows its other keys', () => {
    expect(afterKey(at(0, 0), 'PageDown', 3, 2)).toEqual(at(0, 1));
    expect(afterKey(at(0, 1), 'b', 3, 2)).toEqual({ ...at(0, 1), blank: true });
    expect(afterKey(at(0, 1), 'o', 3, 2)).toMatchObject({ order: 'best', step: 0 });
    expect(['p', 'p', 'p', 'p'].reduce((s, key) => afterKey(s, key, 1, 1)!, at(0, 0)).paper).toBe('dark');
    expect(afterKey(at(0, 0), 'q', 3, 2)).toBeUndefined();
  });
});
