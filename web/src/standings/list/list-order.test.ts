import { expect, test } from 'vitest';
import type { Standings } from '../question/ask.ts';
import { publishedBetween, sorted } from './list-order.ts';

type Row = Standings['rows'][number];
const row = (model: string, more: Partial<Row> = {}) =>
  ({ configuration: { maker: 'Petrel', model, name: 'as found' }, tests: 4, ...more }) as Row;
const rows = [row('S10', { index: 120, value: 3 }), row('S9', { index: 100 }), row('S2', { value: 7 }), row('S1')];
const models = (by: Parameters<typeof sorted>[1]) => sorted(rows, by).map((r) => r.configuration.model);

test('a list is sorted by any column, numbers in names as numbers', () => {
  expect(models({ by: 'place', falling: false })).toEqual(['S10', 'S9', 'S2', 'S1']);
  expect(models({ by: 'place', falling: true })).toEqual(['S1', 'S2', 'S9', 'S10']);
  expect(models({ by: 'name', falling: false })).toEqual(['S1', 'S2', 'S9', 'S10']);
});

test('what has no value comes last whichever way, and equals stay in the order of places', () => {
  expect(models({ by: 'index', falling: true })).toEqual(['S10', 'S9', 'S2', 'S1']);
  expect(models({ by: 'index', falling: false })).toEqual(['S9', 'S10', 'S2', 'S1']);
  expect(models({ by: 'value', falling: true })).toEqual(['S2', 'S10', 'S9', 'S1']);
  expect(models({ by: 'tests', falling: true })).toEqual(['S10', 'S9', 'S2', 'S1']);
});

test('a difference counts as the index of its row', () => {
  const cool = row('S3', { difference: { value: -4 } });
  const warm = row('S4', { difference: { value: 2 } });
  expect(sorted([warm, cool], { by: 'index', falling: false })).toEqual([cool, warm]);
});

test('what others published stands before the first that is not better, the best first, also where less is better', () => {
  const said = (value: number) => ({ value }) as Standings['published'][number];
  const ranked = [row('S1', { value: 90 }), row('S2', { value: 70 }), row('S3')];
  const at = (direction: string, values: number[]) => {
    const found = publishedBetween(values.map(said), ranked, { direction } as Standings['metric']);
    return [0, 1, 2, 3].map((i) => found.before(i).map((p) => p.value));
  };
  expect(at('MORE_IS_BETTER', [80, 95, 85, 10])).toEqual([[95], [85, 80], [10], []]);
  ranked.splice(0, 3, row('S2', { value: 70 }), row('S1', { value: 90 }));
  expect(at('LESS_IS_BETTER', [80, 60, 99, 70])).toEqual([[60, 70], [80], [99], []]);
});
