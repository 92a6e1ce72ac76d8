import { expect, test } from 'vitest';
import type { Standings } from '../question/ask.ts';
import { lineOf, lines } from './lines.ts';

type Row = Standings['rows'][number];
const row = (id: number, placeBest: number, placeWorst: number, status: Row['status'] = 'PLACED') =>
  ({ configuration: { id }, status, placeBest, placeWorst }) as Row;
const said = (rows: readonly Row[]) =>
  lines(rows).map((l) => (l.kind === 'row' ? l.row.configuration.id : l.text.split(':')[0]));

test('many rows that could stand anywhere are told together, after those that have an order', () => {
  const vague = Array.from({ length: 10 }, (_, i) => row(10 + i, 1, 12));
  expect(said([vague[0]!, row(1, 1, 3), ...vague.slice(1), row(2, 9, 12)])).toEqual([
    1,
    2,
    'Not told apart',
    ...vague.map((r) => r.configuration.id),
  ]);
});

test('a few of them stay where they are, and what has no place is under its reason', () => {
  expect(said([row(1, 1, 2), row(2, 1, 2), row(3, 0, 0, 'PROVISIONAL'), row(4, 0, 0, 'NOT_LINKED')])).toEqual([
    1,
    2,
    'Provisional',
    3,
    'Cannot be placed',
    4,
  ]);
});

test('a line is found by its configuration', () => {
  const list = lines([row(1, 1, 2), row(3, 0, 0, 'PROVISIONAL')]);
  expect(lineOf(list, 3)).toBe(2);
  expect(lineOf(list, 9)).toBe(-1);
  expect(lineOf(list, null)).toBe(-1);
});
