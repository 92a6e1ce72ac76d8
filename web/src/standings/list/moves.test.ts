import { expect, test } from 'vitest';
import type { Standings } from '../question/ask.ts';
import { moves } from './moves.ts';

const standing = (...ids: number[]) =>
  ({
    rows: ids.map((id) => ({ configuration: { id }, status: id < 0 ? 'PROVISIONAL' : 'PLACED' })),
  }) as unknown as Standings;

test('who went up has a positive move, and who is new has none', () => {
  const moved = moves(standing(1, 2, 3), standing(3, 1, 2, 4));
  expect([moved.get(3), moved.get(1), moved.get(2), moved.get(4)]).toEqual([2, -1, -1, null]);
});

test('who has no place does not move', () => {
  expect(moves(standing(1, -2), standing(-2, 1)).get(-2)).toBeNull();
});
