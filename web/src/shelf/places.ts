import type { Schemas } from '../api/client.ts';
import { testGroup } from '../format/format.ts';

export type BestPlace = Schemas['BestPlace'];
export const PLACE_ORDERS = ['place', 'test', 'group'] as const;
export type PlaceOrder = (typeof PLACE_ORDERS)[number];

/** How far up a place is, whatever the number of those placed: 0 is first. */
function share(p: BestPlace): number {
  return (p.best + p.worst - 2) / 2 / Math.max(1, p.of - 1);
}

export function sortedPlaces(places: readonly BestPlace[], order: PlaceOrder): BestPlace[] {
  const byName = (a: BestPlace, b: BestPlace) => a.test.localeCompare(b.test, 'en');
  const by = {
    place: (a: BestPlace, b: BestPlace) => share(a) - share(b) || byName(a, b),
    test: byName,
    group: (a: BestPlace, b: BestPlace) =>
      testGroup(a.group).localeCompare(testGroup(b.group), 'en') || share(a) - share(b),
  };
  return [...places].sort(by[order]);
}
