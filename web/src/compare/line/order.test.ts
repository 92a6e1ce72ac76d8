import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { leastKnownSuite, lineName, missingRuns, nameBelow, sections, type ComparedRow } from './order.ts';
import {
  answer,
  boundWords,
  certainty,
  countedVerdict,
  sizeWords,
  whatWouldTell,
  type Cell,
} from '../../format/verdict.ts';

const cell = (more: Partial<Cell>): Cell => ({
  ratio: 1.1,
  low: 1.05,
  high: 1.15,
  verdict: 'CLEAR_GAIN',
  moreThanMost: false,
  unmeasured: false,
  threeEach: false,
  value: 1,
  runs: 3,
  ...more,
});
const row = (id: number, group: 'PROCESSOR' | 'GRAPHICS', ...cells: Cell[]) =>
  ({
    metric: { id, testId: id, test: `Test ${id}`, group, inputs: {}, main: true } as Schemas['MetricRow'],
    value: 1,
    runs: 3,
    sessions: 1,
    atLeast: false,
    cells,
  }) satisfies ComparedRow;
const ids = (parts: ReturnType<typeof sections>) => parts.map((p) => p.rows.map((r) => r.metric.id));

test('lines are under their groups, or in one list by size or certainty', () => {
  const rows = [
    row(1, 'PROCESSOR', cell({ ratio: 1.1 })),
    row(2, 'GRAPHICS', cell({ ratio: 0.5, low: 0.2, high: 1.25 })),
    row(3, 'PROCESSOR', cell({ ratio: 1.3, low: 1.29, high: 1.31 })),
  ];
  expect(ids(sections(rows, 'group', 0))).toEqual([[1, 3], [2]]);
  expect(ids(sections(rows, 'size', 0))).toEqual([[2, 3, 1]]);
  expect(ids(sections(rows, 'certainty', 0))).toEqual([[3, 1, 2]]);
});

test('parts stand below what they are parts of, and the only total of a suite is called by the suite', () => {
  const of = (id: number, more: object) => {
    const made = row(id, 'GRAPHICS', cell({}));
    return {
      ...made,
      metric: { ...made.metric, name: `M${id}`, suite: 'Reed', suiteVersionId: 1, main: true, inputs: {}, ...more },
    };
  };
  const rows = [
    of(1, { testId: 1 }),
    of(2, { testId: 1, main: false }),
    of(3, { testId: 3 }),
    of(4, { testId: 4, formula: 'a + b', inputs: { a: 1, b: 3 } }),
    of(5, { testId: 5 }),
  ] as ComparedRow[];
  const [section] = sections(rows, 'group', 0);
  expect(section!.rows.map((r) => [r.metric.id, section!.depth.get(r.metric.id)])).toEqual([
    [4, 0],
    [1, 1],
    [2, 2],
    [3, 1],
    [5, 0],
  ]);
  expect(rows.map((r) => lineName(r, rows))).toEqual(['M1', 'M2', 'M3', 'Reed, in all', 'M5']);
  const second = of(6, { testId: 6, formula: 'a * b', inputs: { a: 1, b: 3 } }) as ComparedRow;
  expect(lineName(rows[3]!, [...rows, second])).toBe('M4');
});

test('what has no ratio or no known spread comes last', () => {
  const rows = [
    row(1, 'PROCESSOR', { moreThanMost: false, unmeasured: false, threeEach: false, outReason: 'not run' }),
    row(2, 'PROCESSOR', cell({ low: undefined, high: undefined })),
    row(3, 'PROCESSOR', cell({ ratio: 1.01 })),
  ];
  expect(ids(sections(rows, 'size', 0))[0]!.at(-1)).toBe(1);
  expect(ids(sections(rows, 'certainty', 0))[0]![0]).toBe(3);
  expect(sections([], 'size', 0)).toEqual([]);
  expect(certainty(cell({ low: 1.1, high: 1.1 }))).toBe(Infinity);
});

test('missing runs are those of the side that lacks most, of tests that can be run', () => {
  const unsure = (moreRuns: number | undefined, more: Partial<Cell> = {}) =>
    cell({ verdict: 'CANNOT_TELL', moreRuns, ...more });
  const computed = {
    ...row(9, 'PROCESSOR', unsure(4)),
    metric: { id: 9, testId: 9, test: 'Total', formula: 'a + b' } as Schemas['MetricRow'],
  };
  expect(
    missingRuns([
      row(1, 'PROCESSOR', unsure(2), unsure(5)),
      row(2, 'PROCESSOR', cell({})),
      row(3, 'PROCESSOR', unsure(undefined)),
      row(4, 'PROCESSOR', unsure(undefined, { moreThanMost: true })),
      computed,
    ]),
  ).toEqual([
    { testId: 1, test: 'Test 1', runs: 5 },
    { testId: 3, test: 'Test 3', runs: 2 },
  ]);
});

test('what would tell is said only where nothing is told', () => {
  expect(whatWouldTell(cell({}))).toBe('');
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL', moreRuns: 1 }))).toBe('1 more run');
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL', moreRuns: 3 }))).toBe('3 more runs');
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL', moreThanMost: true }))).toBe('more than 40 runs');
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL' }))).toContain('second run');
});

test('verdicts are counted in words', () => {
  expect([
    countedVerdict('CLEAR_GAIN', 3),
    countedVerdict('SMALL_LOSS', 2),
    countedVerdict('CLEAR_LOSS', 1),
    countedVerdict('LEVEL', 4),
    countedVerdict('PROBABLY_GAIN', 2),
    countedVerdict('CANNOT_TELL', 2),
  ]).toEqual(['3 clear gains', '2 small losses', '1 clear loss', '4 level', '2 probable gains', '2 too close to call']);
});

test('where days differ more than runs do, sessions are asked for', () => {
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL', moreSessions: 1 }))).toBe('1 more session of three runs');
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL', moreSessions: 2 }))).toBe('2 more sessions of three runs');
  expect(missingRuns([row(1, 'PROCESSOR', cell({ verdict: 'CANNOT_TELL', moreSessions: 2 }))])).toEqual([]);
});

test('what a display holds is at least, with no verdict', () => {
  expect(boundWords(cell({ bound: 'AT_LEAST', ratio: 2.7345 }))).toBe('at least 2.73×');
  expect(boundWords(cell({ bound: 'AT_MOST', ratio: 0.4 }))).toBe('at most 0.40×');
  expect(boundWords(cell({ bound: 'OPEN' }))).toBe('both capped');
  expect(boundWords(cell({}))).toBeUndefined();
});

test('the suite of which least is known is asked about once', () => {
  const rows = [
    { ...row(1, 'PROCESSOR', cell({ unmeasured: true })), restsOn: 'as usual for processor tests, 1.5 %' },
    { ...row(2, 'PROCESSOR', cell({ unmeasured: true })), restsOn: 'as usual for processor tests, 1.5 %' },
    { ...row(3, 'GRAPHICS', cell({ unmeasured: false })), restsOn: 'as usual for graphics tests, 2.5 %' },
  ];
  const asked = leastKnownSuite(rows)!;
  expect(asked.restsOn).toBe('as usual for processor tests, 1.5 %');
  expect(asked.stated).toBe(false);
  expect(asked.tests).toHaveLength(2);
  expect(leastKnownSuite([rows[2]!])).toBeUndefined();
});

test('a size is said in per cent, as times, or in the unit of the test', () => {
  const points = { unit: 'points', direction: 'MORE_IS_BETTER' };
  const seconds = { unit: 's', direction: 'LESS_IS_BETTER', kind: 'DURATION' };
  const watts = { unit: 'W', direction: 'LESS_IS_BETTER', kind: 'NUMBER' };
  expect(sizeWords(cell({ size: '12.0 % higher', ratio: 1.12, apart: 48 }), points, undefined)).toBe('12.0 % higher');
  expect(sizeWords(cell({ size: '12.0 % higher', ratio: 1.12, apart: 48 }), points, 'times')).toBe('1.12×');
  expect(sizeWords(cell({ ratio: 1.12, apart: 48 }), points, 'unit')).toBe('48 points more');
  expect(sizeWords(cell({ size: 'the same', ratio: 1, apart: 0 }), points, 'unit')).toBe('the same');
  expect(sizeWords(cell({ ratio: 0.9, apart: -12 }), points, 'unit')).toBe('12 points less');
  expect(sizeWords(cell({ ratio: 1.2, apart: -16 }), seconds, 'unit')).toBe('16 s sooner');
  expect(sizeWords(cell({ ratio: 0.9, apart: 3 }), seconds, 'unit')).toBe('3 s later');
  expect(sizeWords(cell({ ratio: 1.1, apart: -2 }), watts, 'unit')).toBe('2 W less');
  expect(sizeWords(cell({ ratio: 1.1, size: '10 % higher', apart: undefined }), points, 'unit')).toBe('10 % higher');
});

test('the answer is the size, and how sure', () => {
  expect(answer(cell({ size: '12.0 % higher', verdict: 'PROBABLY_GAIN' }))).toBe('12.0 % higher, probably');
  expect(answer(cell({ size: '12.0 % higher', verdict: 'CLEAR_GAIN' }))).toBe('12.0 % higher, clear');
  expect(answer(cell({ size: '1.2 % lower', verdict: 'SMALL_LOSS' }))).toBe('1.2 % lower, clear, small');
  expect(answer(cell({ size: '1.0 % higher', verdict: 'CANNOT_TELL' }))).toBe('1.0 % higher, too close to call');
  expect(whatWouldTell(cell({ verdict: 'CANNOT_TELL', threeEach: true }))).toBe('run each three times');
});

test('below its test, a number is called by what it says of it', () => {
  const part = { metric: { test: 'Weir hash', main: false } } as ComparedRow;
  expect(nameBelow(part, 'Weir hash, energy', 1)).toBe('energy');
  expect(nameBelow(part, 'Weir hash, energy', 0)).toBe('Weir hash, energy');
  expect(nameBelow(part, 'Weir hash over sizes', 1)).toBe('Weir hash over sizes');
});
