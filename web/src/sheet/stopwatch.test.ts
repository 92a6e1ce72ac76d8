import { expect, test } from 'vitest';
import { isTime, shown, typed } from './stopwatch.ts';

test.each([
  [0, '0.00'],
  [9, '0.00'],
  [64_279, '1:04.27'],
  [59_999, '59.99'],
  [60_000, '1:00.00'],
  [3_723_450, '62:03.45'],
])('%i ms is shown as %s', (ms, text) => {
  expect(shown(ms)).toBe(text);
});

test('what is stored keeps hundredths and says its unit', () => {
  expect(typed(64_279)).toBe('64.27 s');
  expect(isTime('s') && isTime('min')).toBe(true);
  expect(isTime('MB/s')).toBe(false);
});
