import { expect, test } from 'vitest';
import { coversAll } from './covers-all.ts';

test('what the intervals know is said of all of them together', () => {
  expect(coversAll([{ index: 100, covers: 'DAY_TO_DAY' }, { covers: 'WITHIN_ONE_SESSION' }])).toBe(
    'day to day included',
  );
  expect(
    coversAll([
      { index: 100, covers: 'DAY_TO_DAY' },
      { index: 90, covers: 'WITHIN_ONE_SESSION' },
    ]),
  ).toBe('day to day included for some of the tests');
  expect(coversAll([{ index: 100 }])).toBe('from run-to-run noise');
});
