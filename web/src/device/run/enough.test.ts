import { expect, test } from 'vitest';
import { isEnough } from './enough.ts';

// As the core computes them for three to five runs within 1 % and nothing lent.
const limits = [
  { runs: 3, spread: 0.002778, rounding: 0.001604 },
  { runs: 4, spread: 0.004757, rounding: 0.002379 },
];
const runs = (resolution: number, ...values: number[]) => values.map((value) => ({ value, resolution }));

test('a quiet test is known after three runs, and one that is not goes on', () => {
  expect(isEnough(limits, runs(0, 100, 100.1, 99.9))).toBe(true);
  expect(isEnough(limits, runs(0, 100, 101, 99))).toBe(false);
  expect(isEnough(limits, runs(0, 100, 100.4, 99.6, 100.1))).toBe(true);
});

test('where nobody said when it is enough, it never is', () => {
  expect(isEnough(limits, runs(0, 100, 100))).toBe(false);
  expect(isEnough(limits, runs(0, 100, 100, 100, 100, 100))).toBe(false);
  expect(isEnough([], runs(0, 100, 100, 100))).toBe(false);
});

test('equal readings are not surer than their rounding', () => {
  expect(isEnough(limits, runs(1, 100, 100, 100))).toBe(false);
  expect(isEnough(limits, runs(0.1, 100, 100, 100))).toBe(true);
});

test('what is no rate says nothing', () => {
  expect(isEnough(limits, runs(0, 100, 0, 100))).toBe(false);
});
