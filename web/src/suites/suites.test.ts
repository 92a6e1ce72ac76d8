import { expect, test } from 'vitest';
import { suites } from './suites.ts';

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
      row(1, 'Tidegauge', '2', 9),
      row(2, 'Kelpline', '3', 4),
      row(3, 'Tidegauge', '2', 9),
      row(4, 'Tidegauge', '1', 8),
      row(5, 'Yarrow processor', '1', 1),
    ].map((r) => ({ ...r, metrics: [] })),
  );
  expect(all.map((s) => [s.id, s.name, s.tests.map((t) => t.id)])).toEqual([
    [4, 'Kelpline 3', [2]],
    [8, 'Tidegauge 1', [4]],
    [9, 'Tidegauge 2', [1, 3]],
    [1, 'Yarrow processor 1', [5]],
  ]);
  expect(all.filter((s) => s.builtIn).map((s) => s.name)).toEqual(['Yarrow processor 1']);
});
