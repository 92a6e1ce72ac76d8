import { expect, test } from 'vitest';
import {
  headingOf,
  letter,
  tagOf,
  unsaidUnits,
  withColumns,
  withHeader,
  withRow,
  type Answer,
  type Column,
} from './columns.ts';

const column = (at: number, more: Partial<Column> = {}): Column => ({
  column: at,
  role: 'TEST',
  name: 'Export',
  metric: '',
  unit: 's',
  direction: 'LESS_IS_BETTER',
  run: 1,
  group: 'EVERYDAY',
  ...more,
});

const answer = {
  cells: [
    ['', 'Archive', ''],
    ['Device', '1', ''],
    ['Cob', '5', '6'],
  ],
  layout: {
    headerFrom: 0,
    headerTo: 1,
    lastRow: 2,
    skipped: [],
    columns: [column(0, { role: 'MODEL', name: '' }), column(1), column(2)],
  },
} as unknown as Answer;

test('a column says what it is, shortly, and a run or further number only what is new', () => {
  expect(tagOf(column(0), undefined)).toBe('test · s');
  expect(tagOf(column(1, { run: 2 }), column(0))).toBe('run 2');
  expect(tagOf(column(1, { metric: '1 % low' }), column(0, { metric: 'average' }))).toBe('its 1 % low');
  expect(tagOf(column(1, { role: 'FACT', name: 'memory.size' }), undefined)).toBe('fact');
  expect(tagOf(column(1, { role: 'MODEL_FIELD', name: 'price' }), undefined)).toBe('price');
  expect(tagOf(column(1, { unit: '1' }), undefined)).toBe('test · points');
});

test('columns have letters, and headings of two rows', () => {
  expect([0, 25, 26, 701, 702].map(letter)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA']);
  expect(headingOf(answer, 1)).toBe('1');
  expect(headingOf(answer, 2)).toBe('Column C');
});

test('several columns become something at once, a test by its own heading', () => {
  const facts = withColumns(answer, [1, 2], { role: 'FACT', name: 'memory.size' });
  expect(facts.columns.map((c) => c.name)).toEqual(['', 'memory.size', 'memory.size']);
  expect(facts.columns[1]!.direction).toBeUndefined();
  const tests = withColumns({ ...answer, layout: facts }, [0], { role: 'TEST' });
  expect(tests.columns[0]).toMatchObject({ name: 'Device', unit: '1', direction: 'MORE_IS_BETTER', run: 1 });
  expect(withColumns(answer, [1], { unit: 'min' }).columns[1]).toMatchObject({ unit: 'min', name: 'Export' });
});

test('rows are devices or none, and the header moves', () => {
  const without = withRow(answer.layout, 2, false);
  expect(without.skipped).toEqual([2]);
  expect(withRow(without, 2, true).skipped).toEqual([]);
  expect(withRow(without, 9, true).lastRow).toBe(9);
  expect(withHeader(answer.layout, 0)).toMatchObject({ headerFrom: 0, headerTo: 0 });
});

test('a test without a unit is asked about, once for all its columns', () => {
  const plain = (at: number, name: string) => column(at, { name, unit: '1', direction: 'MORE_IS_BETTER' });
  const layout = {
    ...answer.layout,
    headerFrom: 0,
    headerTo: 0,
    columns: [plain(0, 'Archive'), plain(1, 'Archive'), plain(2, 'Hash')],
  };
  const cells = [['Archive', '', 'Hash (points)']];
  expect(unsaidUnits({ ...answer, cells, layout })).toEqual(['Archive']);
});
