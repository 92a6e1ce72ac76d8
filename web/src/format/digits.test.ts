import { expect, test } from 'vitest';
import { decimalsOf, indexDecimals, ratioDecimals } from './digits.ts';

test.each([
  [100.1, 100.4, 1],
  [69, 131, 0],
  [2005, 3525, 0],
  [99.9, 100.1, 1],
  [99.99, 100.01, 2],
  [99.99999, 100.00001, 3],
  [100, 100, 0],
  [0, Infinity, 0],
])('between %f and %f are worth %i decimals', (low, high, decimals) => {
  expect(decimalsOf(low, high)).toBe(decimals);
});

test('an index without an interval is whole from 100 on', () => {
  expect(indexDecimals(100, undefined, undefined)).toBe(0);
  expect(indexDecimals(71.2, undefined, undefined)).toBe(1);
  expect(indexDecimals(100, 100, 100)).toBe(0);
  expect(indexDecimals(71.2, 60, 84)).toBe(0);
});

test('a ratio near the edge of what matters has a third decimal, and never more', () => {
  const [gain, small] = [1.034, 1.026];
  expect(gain.toFixed(ratioDecimals(gain, 1.03))).not.toBe(small.toFixed(ratioDecimals(small, 1.03)));
  expect(ratioDecimals(1.25, 1.03)).toBe(2);
  expect(ratioDecimals(1.003, 1.03)).toBe(3);
  expect(ratioDecimals(1, 1.03)).toBe(2);
  expect(ratioDecimals(1 / 1.03, 1.03)).toBe(2);
  expect(ratioDecimals(1.00001, 1.03)).toBe(3);
});
