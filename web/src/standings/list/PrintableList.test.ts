import { expect, test } from 'vitest';
import { positionWords } from './PrintableList.tsx';

test('a percentile names its population', () => {
  expect(positionWords({ status: 'PLACED', percentile: 0.8235, third: 'UPPER' }, 'tablets', 35)).toBe(
    'beats 82\u00a0% of the 34 other tablets, upper third',
  );
  expect(positionWords({ status: 'PLACED' }, 'tablets', 3)).toBe('');
  expect(positionWords({ status: 'PROVISIONAL' }, 'tablets', 3)).toContain('provisional');
});
