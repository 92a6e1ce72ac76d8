import { expect, test } from 'vitest';
import { moved, next, startsScore } from './places.ts';

const done = { state: 'OK' as const, aside: false };
const open = { aside: false };
const aside = { state: 'OK' as const, aside: true };
const SHAPE = [{ runs: [done, open, open] }, { runs: [done, done] }, { runs: [open, aside] }];

test('Enter goes to the next empty place, row by row, and begins again at the top', () => {
  expect(next(SHAPE, { row: 0, run: 0 })).toEqual({ row: 0, run: 1 });
  expect(next(SHAPE, { row: 0, run: 2 })).toEqual({ row: 2, run: 0 });
  expect(next(SHAPE, { row: 2, run: 0 })).toEqual({ row: 2, run: 1 });
  expect(next(SHAPE, { row: 2, run: 1 })).toEqual({ row: 0, run: 1 });
  expect(next([{ runs: [done] }], { row: 0, run: 0 })).toEqual({ row: 0, run: 0 });
});

test('arrows stay inside, also where a row is shorter', () => {
  expect(moved(SHAPE, { row: 0, run: 2 }, 'ArrowDown')).toEqual({ row: 1, run: 1 });
  expect(moved(SHAPE, { row: 0, run: 0 }, 'ArrowUp')).toEqual({ row: 0, run: 0 });
  expect(moved(SHAPE, { row: 2, run: 1 }, 'ArrowRight')).toEqual({ row: 2, run: 1 });
  expect(moved(SHAPE, { row: 2, run: 1 }, 'ArrowLeft')).toEqual({ row: 2, run: 0 });
});

test.each(['4', '.', '-', 'n', 'c'])('%s begins a score', (key) => expect(startsScore(key)).toBe(true));
test.each(['u', 'Enter', 'g', '/'])('%s does not', (key) => expect(startsScore(key)).toBe(false));
