import { expect, test } from 'vitest';
import { bestMatch, suites, withWords } from './suites.ts';

const row = (id: number, suite: string, version: string, suiteVersionId: number) =>
  ({
    id,
    key: `t${id}`,
    name: `Test ${id}`,
    summary: '',
    group: 'STORAGE',
    suite,
    version,
    number: version,
    mode: '',
    suiteVersionId,
    builtIn: suite === 'Yarrow processor',
    retired: false,
    metrics: [],
  }) as const;

test('tests stand under their version, by name, in their own order', () => {
  const all = suites(
    [
      row(3, 'Tidegauge', '2', 9),
      row(2, 'Kelpline', '3', 4),
      row(1, 'Tidegauge', '2', 9),
      row(6, 'Kelpline', '10', 5),
      row(4, 'Tidegauge', '1', 8),
      row(5, 'Yarrow processor', '1', 1),
    ].map((r) => ({ ...r, metrics: [] })),
  );
  expect(all.map((s) => [s.id, s.name, s.tests.map((t) => t.id)])).toEqual([
    [4, 'Kelpline 3', [2]],
    [5, 'Kelpline 10', [6]],
    [8, 'Tidegauge 1', [4]],
    [9, 'Tidegauge 2', [1, 3]],
    [1, 'Yarrow processor 1', [5]],
  ]);
  expect(all.filter((s) => s.builtIn).map((s) => s.name)).toEqual(['Yarrow processor 1']);
});

test('words find a suite, or the tests that have them', () => {
  const all = suites(
    [row(1, 'Tidegauge', 'x', 9), row(2, 'Tidegauge', 'x', 9), row(3, 'Kelpline', 'y', 4)].map((r) => ({
      ...r,
      metrics: [],
    })),
  );
  expect(withWords(all, ' tideGAUGE ').map((s) => s.tests.length)).toEqual([2]);
  expect(withWords(all, 'tidegauge test 2').map((s) => s.tests.map((t) => t.id))).toEqual([[2]]);
  expect(withWords(all, 'nothing')).toEqual([]);
  expect(withWords(all, '')).toHaveLength(2);
});

test('a name that was typed exactly is meant before one that only has its words', () => {
  const tests = ['Weir hash, native, one thread', 'Weir hash, one thread, long', 'Weir hash, one thread'].map(
    (name) => ({
      name,
    }),
  );
  expect(bestMatch(tests, ' weir HASH, one thread ')?.name).toBe('Weir hash, one thread');
  expect(bestMatch(tests, 'weir hash, one')?.name).toBe('Weir hash, one thread, long');
  expect(bestMatch(tests, 'thread one')?.name).toBe('Weir hash, native, one thread');
  expect(bestMatch([], 'weir')).toBeUndefined();
});
