import { expect, test } from 'vitest';
import { askOf, scopeKey, scopeOf } from './ask.ts';
import { narrowWords, readCondition, writeCondition } from './narrow.ts';

const LABELS = new Map([['memory.size', 'Memory size']]);

test('who is in reads as a part of the sentence', () => {
  expect(narrowWords({}, LABELS, 'EUR')).toBe('every configuration');
  expect(narrowWords({ models: 'NEWEST', to: 600 }, LABELS, 'EUR')).toBe(
    'the newest configuration of each model, up to 600 EUR',
  );
  expect(
    narrowWords(
      { makers: ['Larkspur', 'Quenby'], since: 2023, facts: ['memory.size~AT_LEAST~8 GB'], power: 'MAINS' },
      LABELS,
      'EUR',
    ),
  ).toBe('by Larkspur or Quenby, released 2023 or later, with memory size at least 8 GB, on mains');
  expect(
    narrowWords({ since: 2024, until: 2024, fresh: true, firmware: true, review: 'IN_REVIEW' }, LABELS, 'EUR'),
  ).toBe('released 2024, in review, nothing stale');
});

test('a condition survives the address, also with the sign in its value', () => {
  const condition = { key: 'os.name', relation: 'IS', value: 'Fen~land' } as const;
  expect(readCondition(writeCondition(condition))).toEqual(condition);
  expect(readCondition('os.name~NEARLY~x').relation).toBe('KNOWN');
});

test('a base of the address wins over that of the table, and the typical one over both', () => {
  expect(askOf({ base: 3 }, 7)).toEqual({ base: 3 });
  expect(askOf({}, 7)).toEqual({ base: 7 });
  expect(askOf({ typical: true, base: 3 }, 7)).toEqual({ typical: true });
});

test('what is ranked has one key', () => {
  for (const search of [{}, { group: 'STORAGE' }, { suite: 3 }, { test: 4 }, { metric: 5 }] as const) {
    expect(Object.fromEntries(Object.entries(scopeOf(scopeKey(search))).filter(([, v]) => v !== undefined))).toEqual(
      search,
    );
  }
});
