import type { Schemas } from '../../api/client.ts';
import { testGroup } from '../../format/format.ts';

export type BestPlace = Schemas['BestPlace'];
export const PLACE_ORDERS = ['place', 'test', 'group'] as const;
export type PlaceOrder = (typeof PLACE_ORDERS)[number];

/** @param places the best first, as the server has them: they stay so inside a group */
export function sortedPlaces(places: readonly BestPlace[], order: PlaceOrder): BestPlace[] {
  const name = { place: () => '', test: (p: BestPlace) => p.test, group: (p: BestPlace) => testGroup(p.group) }[order];
  return [...places].sort((a, b) => name(a).localeCompare(name(b), 'en'));
}
