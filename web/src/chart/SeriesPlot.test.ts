import { expect, test } from 'vitest';
import { thinned } from './SeriesPlot.tsx';

test('few points are all drawn; of many, the highest of each stretch and so every stutter', () => {
  const few = [
    { x: 1, y: 2 },
    { x: 2, y: 1 },
  ];
  expect(thinned(few)).toEqual(few);
  const many = Array.from({ length: 20_000 }, (_, i) => ({ x: i, y: i === 7_777 ? 90 : 16 }));
  expect(thinned(many)).toHaveLength(800);
  expect(thinned(many)).toContainEqual({ x: 7_777, y: 90 });
});
