import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { compareSearch, trendsSearch } from '../../shell/search-params.ts';
import {
  askOf,
  byWords,
  compareSearchOf,
  narrowedWords,
  standingWords,
  trendSearchOf,
  trendWords,
  type StandingsAsk,
} from './asked.ts';

const standings = (more: object = {}) =>
  ({ purpose: 'all-round use', scope: 'the shared tests', leftOut: [], ...more }) as unknown as Schemas['Standings'];
const comparison = (more: object = {}) =>
  ({
    rows: [{ metric: { suiteVersionId: 4, testId: 9, suite: 'Kelpline Desk', version: '3', test: 'Report export' } }],
    take: 'USUAL',
    baseTake: 'USUAL',
    ...more,
  }) as unknown as Schemas['Comparison'];

test('a class alone, as older pieces have it, is asked as a standing of that class', () => {
  expect(askOf({ deviceClass: 'PHONE' })).toEqual({ deviceClass: ['PHONE'] });
  expect(askOf({})).toEqual({});
  const asked: StandingsAsk = { metric: 7 };
  expect(askOf({ asked, deviceClass: 'PHONE' })).toBe(asked);
});

test('a standing says what it ranks by and what it was narrowed to', () => {
  expect(standingWords(standings(), {})).toBe('for all-round use, over the shared tests');
  expect(standingWords(standings({ metric: {}, scope: 'Report export' }), {})).toBe('by Report export');
  const asked = { without: ['group:STORAGE'], maker: ['Ostler'], power: 'BATTERY' } satisfies StandingsAsk;
  expect(narrowedWords(standings({ per: 'price in EUR', take: 'ALL' }), { asked })).toBe(
    'without Storage, per price in EUR, in every session, made by Ostler, measured on battery',
  );
  const leftOut = ['Read', 'Write'].map((name) => ({ test: name, suite: 'Tidegauge', reason: 'left out here' }));
  expect(narrowedWords(standings({ leftOut }), { asked: { without: ['suite:4'] } })).toBe('without Read, Write');
  const many = Array.from({ length: 9 }, (_, i) => ({ test: `Test ${i}`, suite: 'Desk', reason: 'left out here' }));
  expect(narrowedWords(standings({ leftOut: many }), { asked: { without: ['suite:4'] } })).toBe('without 9 tests');
});

test('a comparison says what it was narrowed to, and nothing where it was not', () => {
  expect(byWords(undefined, comparison())).toBe('');
  expect(byWords({ purpose: 3 }, comparison())).toBe('');
  expect(byWords({ suite: 4, without: ['test:9', 'group:BROWSER'] }, comparison())).toBe(
    'Kelpline Desk 3 alone, without Report export, Browser',
  );
  expect(byWords({ group: 'MEMORY' }, comparison({ take: 'RECORDED', per: { label: 'cores' } }))).toBe(
    'Memory tests alone, per cores, while the screen was recorded, the base in usual sessions',
  );
});

test('a figure leads back to the comparison that asks the same', () => {
  const by = { purpose: 2, without: ['group:STORAGE'], materiality: 5, take: 'ALL', baseTake: 'USUAL' } as const;
  const search = compareSearchOf({ configuration: 6, base: 4, by: { ...by, without: [...by.without] } });
  expect(search).toEqual(
    compareSearch({
      ids: [4, 6],
      base: 4,
      purpose: 2,
      without: ['group:STORAGE'],
      matters: 5,
      take: 'ALL',
      baseTake: 'USUAL',
    }),
  );
});

test('a figure leads back to the trend that asks the same, and says what it was narrowed to', () => {
  const by = { purpose: 2, without: ['group:STORAGE'], matters: 5, from: 'c7' };
  expect(trendSearchOf({ model: 3, unit: 4, along: 'os.kernel', by })).toEqual(
    trendsSearch({
      model: 3,
      unit: 4,
      along: 'os.kernel',
      purpose: 2,
      without: ['group:STORAGE'],
      matters: 5,
      from: 'c7',
    }),
  );
  const trends = { lines: [{ metric: { testId: 9, test: 'Report export' } }] } as unknown as Schemas['Trends'];
  expect(trendWords(undefined, trends)).toBe('');
  expect(trendWords({ without: ['group:STORAGE', 'test:9'] }, trends)).toBe('without Storage, Report export');
  expect(trendWords({ group: 'MEMORY' }, trends)).toBe('Memory tests alone');
});
