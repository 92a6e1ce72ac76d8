import { expect, test } from 'vitest';
import { withLane, type Lane } from './useBench.ts';

const lane = (seatId: number, phase: Lane['phase'], msLeft = 0) => ({ seatId, phase, msLeft }) as Lane;

test('a lane takes the place of its older state, a new one comes first, a cleared one goes', () => {
  const lanes = [lane(1, 'RUNNING'), lane(2, 'WAITING')];
  expect(withLane(lanes, lane(2, 'JOINED')).map((l) => l.phase)).toEqual(['RUNNING', 'JOINED']);
  expect(withLane(lanes, lane(3, 'WAITING')).map((l) => l.seatId)).toEqual([3, 1, 2]);
  expect(withLane(lanes, lane(1, 'CLEARED')).map((l) => l.seatId)).toEqual([2]);
  expect(withLane(lanes, lane(9, 'CLEARED'))).toEqual(lanes);
});
