import { expect, test } from 'vitest';
import {
  benchSearch,
  byHandSearch,
  configureSearch,
  differenceSearch,
  ledgerSearch,
  shelfSearch,
  standingsSearch,
} from './search-params.ts';

test('what makes no sense in an address is dropped', () => {
  expect(standingsSearch({ classes: ['LAPTOP', 'SPACESHIP'], purpose: '2', metric: 'x', base: -4 })).toEqual({
    classes: ['LAPTOP'],
    purpose: 2,
  });
  // Left out, it would come back from the address as it was typed.
  expect(Object.keys(standingsSearch({ metric: 'x', base: -4 }))).toEqual(expect.arrayContaining(['metric', 'base']));
  expect(
    standingsSearch({
      makers: ['Pellow', 7, 'Pellow', ''],
      from: '300',
      to: 600,
      facts: 'all',
      form: 'cake',
      power: 'MAINS',
      weigh: 'yes',
    }),
  ).toEqual({ makers: ['Pellow', '7'], to: 600, power: 'MAINS' });
  expect(ledgerSearch({ state: 'FAILED', page: 1.5, model: '1e99' })).toEqual({ state: 'FAILED' });
  expect(benchSearch({ runs: 4, timed: 500, pause: '2000' })).toEqual({ timed: 500 });
  expect(shelfSearch({ q: 'x'.repeat(500), classes: 'TABLET' })).toEqual({ q: 'x'.repeat(120), classes: ['TABLET'] });
  expect(shelfSearch({ q: 14 })).toEqual({ q: '14' });
});

test('addresses of the shelf keep what makes sense and nothing else', () => {
  expect(
    shelfSearch({
      since: '2024',
      dearest: -5,
      retired: 'yes',
      fact: 'memory.size',
      relation: 'AT_LEAST',
      value: '16 GB',
      maker: 7,
    }),
  ).toEqual({ since: 2024, fact: 'memory.size', relation: 'AT_LEAST', value: '16 GB', maker: '7' });
  expect(shelfSearch({ relation: 'DROP TABLE', retired: true })).toEqual({ retired: true });
  expect(differenceSearch({ ids: [4, '5', 5, 'x', 0], base: 5 })).toEqual({ ids: [4, 5], base: 5 });
  expect(differenceSearch({ ids: Array.from({ length: 20 }, (_, i) => i + 1) }).ids).toHaveLength(8);
  expect(differenceSearch({ ids: 'all' })).toEqual({});
  expect(configureSearch({ unit: '3', from: null })).toEqual({ unit: 3 });
  expect(byHandSearch({ configuration: '9' })).toEqual({ configuration: 9 });
});
