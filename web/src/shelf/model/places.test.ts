import { expect, test } from 'vitest';
import { sortedPlaces, type BestPlace } from './places.ts';

const place = (test: string, group: BestPlace['group']) => ({ test, group }) as BestPlace;
const BEST_FIRST = [
  place('Weir', 'PROCESSOR'),
  place('Pack', 'STORAGE'),
  place('Dunes', 'GRAPHICS'),
  place('Copy', 'STORAGE'),
];
const names = (order: 'place' | 'test' | 'group') => sortedPlaces(BEST_FIRST, order).map((p) => p.test);

test('the best first, as they came', () => {
  expect(names('place')).toEqual(['Weir', 'Pack', 'Dunes', 'Copy']);
});

test('by name, and by group with the best of each first', () => {
  expect(names('test')).toEqual(['Copy', 'Dunes', 'Pack', 'Weir']);
  expect(names('group')).toEqual(['Dunes', 'Weir', 'Pack', 'Copy']);
  expect(BEST_FIRST[0]!.test, 'what was given stays as it was').toBe('Weir');
});
