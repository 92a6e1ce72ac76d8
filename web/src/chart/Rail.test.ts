import { expect, test } from 'vitest';
import { railScale, tickPath } from './Rail.tsx';
import { markPath, MARKS } from './Mark.tsx';

test('right is better, and the ends stay inside', () => {
  const scale = railScale([-0.5, 0, 1.2], 200);
  expect(scale.x(-0.5)).toBe(12);
  expect(scale.x(1.2)).toBe(188);
  expect(scale.x(0)).toBeGreaterThan(scale.x(-0.5));
});

test('one value sits in the middle', () => {
  expect(railScale([0.3], 100).x(0.3)).toBe(50);
  expect(railScale([], 100).x(5)).toBe(50);
});

test('all ticks are one path', () => {
  expect(tickPath([0, 1], railScale([0, 1], 100), 4)).toBe('M12.0 -4v8M88.0 -4v8');
});

test('the eight marks differ in shape', () => {
  expect(new Set(Array.from({ length: MARKS }, (_, slot) => markPath(slot, 5))).size).toBe(MARKS);
});
