import { expect, test } from 'vitest';
import { railScale, tickPath } from './Rail.tsx';
import { nearest, ticksOf } from './ticks.ts';

const merits = [
  { id: 1, merit: 0.4 },
  { id: 2, merit: -0.2 },
  { id: 3, merit: 0.41 },
];
const scale = railScale(
  merits.map((m) => m.merit),
  200,
);
const ticks = ticksOf(merits, scale);

test('ticks run from the worst to the best', () => {
  expect(ticks.map((t) => t.id)).toEqual([2, 1, 3]);
});

test('the nearest one is found, and none where all are far', () => {
  expect(ticks[nearest(ticks, scale.x(0.4))]!.id).toBe(1);
  expect(ticks[nearest(ticks, scale.x(0.41) + 5)]!.id).toBe(3);
  expect(nearest(ticks, 100)).toBe(-1);
  expect(nearest([], 100)).toBe(-1);
});

test('ticks on the same half pixel are drawn once', () => {
  const path = tickPath(Array.from({ length: 2000 }, (_, i) => 0.4 + i * 1e-7).concat([-0.2]), scale, 3);
  expect(path.split('M').length - 1).toBeLessThan(6);
});
