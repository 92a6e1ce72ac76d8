import { expect, test } from 'vitest';
import { coversAll } from './covers-all.ts';

test('a standing says what its intervals rest on, also one that was saved before it had words for it', () => {
  expect(coversAll({ days: 'day to day from 3 devices', rows: [{ index: 100, covers: 'PARTLY' }] })).toBe(
    'day to day from 3 devices',
  );
  expect(coversAll({ rows: [{ index: 100, covers: 'DAY_TO_DAY' }, { covers: 'WITHIN_ONE_SESSION' }] })).toBe(
    'day to day included',
  );
  expect(
    coversAll({
      rows: [
        { index: 100, covers: 'DAY_TO_DAY' },
        { index: 90, covers: 'WITHIN_ONE_SESSION' },
      ],
    }),
  ).toBe('day to day included for some of the tests');
  expect(coversAll({ rows: [{ index: 100 }] })).toBe('from run-to-run noise');
});
