import { expect, test } from 'vitest';
import { dueWords } from './due.ts';
import { inTree } from './tree.ts';

test('children stand under their parents, whatever order they came in', () => {
  const rows = inTree([{ id: 4, parentId: 2 }, { id: 1 }, { id: 2, parentId: 1 }, { id: 3 }, { id: 5, parentId: 1 }]);
  expect(rows.map((r) => `${r.item.id}@${r.depth}`)).toEqual(['1@0', '2@1', '4@2', '5@1', '3@0']);
});

test('a child of something that is not shown is a root, and a circle ends', () => {
  expect(inTree([{ id: 7, parentId: 99 }]).map((r) => r.depth)).toEqual([0]);
  expect(
    inTree([
      { id: 1, parentId: 2 },
      { id: 2, parentId: 1 },
    ]),
  ).toEqual([]);
});

test.each([
  ['2026-11-20', '3 days overdue', true],
  ['2026-11-22', 'was due back yesterday', true],
  ['2026-11-23', 'goes back today', true],
  ['2026-11-24', 'goes back tomorrow', false],
  ['2026-12-01', 'goes back in 8 days', false],
])('due on %s: %s', (due, words, late) => {
  expect(dueWords(due, new Date(2026, 10, 23, 23, 30))).toEqual({ words, late });
});
