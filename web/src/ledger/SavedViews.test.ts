import { expect, test } from 'vitest';
import { addressOf, searchOf } from './SavedViews.tsx';

test('what a sentence says comes back from its address, without page and open reading', () => {
  const search = {
    model: 7,
    state: 'SET_ASIDE' as const,
    version: 3,
    person: 'wren',
    from: '2026-03-01',
    fact: 'memory.size',
    relation: 'AT_LEAST' as const,
    value: '16 GB',
    page: 4,
    reading: 9,
  };
  const { page: _p, reading: _r, ...kept } = search;
  expect(Object.fromEntries(Object.entries(searchOf(addressOf(search))).filter(([, v]) => v !== undefined))).toEqual(
    kept,
  );
  expect(addressOf({})).toBe('');
});

test('an address typed by hand keeps only what makes sense', () => {
  expect(Object.values(searchOf('model=-1&state=GONE&from=soon&relation=NEAR')).every((v) => v === undefined)).toBe(
    true,
  );
});
