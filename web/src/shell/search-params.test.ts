import { expect, test } from 'vitest';
import { benchSearch, ledgerSearch, shelfSearch, standingsSearch } from './search-params.ts';

test('what makes no sense in an address is dropped', () => {
  expect(standingsSearch({ classes: ['LAPTOP', 'SPACESHIP'], purpose: '2', metric: 'x', base: -4 })).toStrictEqual({ classes: ['LAPTOP'], purpose: 2, metric: undefined, base: undefined });
  expect(ledgerSearch({ state: 'FAILED', page: 1.5, model: '1e99' })).toEqual({ state: 'FAILED' });
  expect(benchSearch({ runs: 4, timed: 500, pause: '2000' })).toEqual({ timed: 500 });
  expect(shelfSearch({ q: 'x'.repeat(500), classes: 'TABLET' })).toEqual({ q: 'x'.repeat(120), classes: ['TABLET'] });
  expect(shelfSearch({ q: 14 })).toEqual({ q: '14' });
});
