import { expect, test } from 'vitest';
import { sortedPlaces, type BestPlace } from './places.ts';

const place = (test: string, group: BestPlace['group'], best: number, worst: number, of: number) =>
  ({ test, group, best, worst, of }) as BestPlace;
const PLACES = [
  place('Pack', 'STORAGE', 2, 2, 3),
  place('Weir', 'PROCESSOR', 1, 3, 20),
  place('Dunes', 'GRAPHICS', 4, 4, 40),
  place('Copy', 'STORAGE', 1, 1, 2),
];

test('a place is as good as the share of others above it', () => {
  expect(sortedPlaces(PLACES, 'place').map((p) => p.test)).toEqual(['Copy', 'Weir', 'Dunes', 'Pack']);
});

test('by name, and by group with the best first', () => {
  expect(sortedPlaces(PLACES, 'test').map((p) => p.test)).toEqual(['Copy', 'Dunes', 'Pack', 'Weir']);
  expect(sortedPlaces(PLACES, 'group').map((p) => p.test)).toEqual(['Dunes', 'Weir', 'Copy', 'Pack']);
  expect(PLACES[0]!.test, 'what was given stays as it was').toBe('Pack');
});
