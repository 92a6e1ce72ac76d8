import { expect, test } from 'vitest';
import { linearTicks, logTicks } from './axis-ticks.ts';

test.each([
  [1, 1000, 10, [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000]],
  [1, 1000, 5, [1, 10, 100, 1000]],
  [0.8, 1.3, 6, [0.8, 0.9, 1, 1.1, 1.2, 1.3]],
  [5, 5, 4, [5]],
  [0, 10, 4, []],
])('from %s to %s there are at most %s ticks', (low, high, most, expected) => {
  expect(logTicks(low, high, most).map((t) => Number(t.toPrecision(6)))).toEqual(expected);
});

test('sizes stand at powers of two', () => {
  expect(logTicks(1024, 16384, 8, 2)).toEqual([1024, 2048, 4096, 8192, 16384]);
});

test('ticks are inside, in order, and no more than there is room for', () => {
  for (const [low, high] of [
    [1e-9, 1e12],
    [3, 3.0001],
    [17, 23_000],
  ] as const)
    for (const most of [2, 3, 5, 9]) {
      for (const ticks of [logTicks(low, high, most), linearTicks(low, high, most)]) {
        expect(ticks.length).toBeLessThanOrEqual(most);
        expect([...ticks].sort((a, b) => a - b)).toEqual(ticks);
        expect(ticks.every((t) => t >= low * 0.999999 && t <= high * 1.000001)).toBe(true);
      }
    }
});
