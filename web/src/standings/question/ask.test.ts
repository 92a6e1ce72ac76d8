import { expect, test } from 'vitest';
import { standingsSearch } from '../../shell/search-params.ts';
import { askOf, searchOf } from './ask.ts';

const SEARCHES = [
  {},
  { classes: ['LAPTOP', 'PHONE'], makers: ['Ostler'], from: 10, to: 900, since: 2020, until: 2026 },
  { facts: ['memory.size~AT_LEAST~16 GB'], firmware: true, power: 'BATTERY', review: 'REVIEWED', models: 'BEST' },
  {
    fresh: true,
    purpose: 3,
    group: 'STORAGE',
    base: 7,
    per: 'price',
    take: 'RECORDED',
    without: ['suite:4', 'test:9'],
  },
  { metric: 12, typical: true, every: true },
  { suite: 5 },
  { tests: [4, 9], only: [1, 2] },
  { test: 6 },
];

test('a standing that is asked in a write-up is the one that the view shows at its address', () => {
  for (const raw of SEARCHES) {
    const search = standingsSearch(raw);
    expect(Object.values(search).filter((v) => v !== undefined)).toHaveLength(Object.keys(raw).length);
    const ask = askOf(search, undefined);
    expect(searchOf(ask)).toEqual(search);
    expect(askOf(searchOf(ask), undefined)).toEqual(ask);
  }
});
