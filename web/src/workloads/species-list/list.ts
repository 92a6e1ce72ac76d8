import { seeded } from '../random.ts';

/** One sighting in the list. */
export interface Species {
  id: number;
  name: string;
  count: number;
  wetland: boolean;
}

export const ROWS = 400;
export const EDITS = 60;

const FIRST = ['Marsh', 'Common', 'Lesser', 'Greater', 'Pale', 'Dusky', 'Northern', 'Reed', 'Tufted', 'Spotted', 'Grey', 'Little'];
const SECOND = ['warbler', 'plover', 'sedge', 'rush', 'harrier', 'bunting', 'teal', 'sandpiper', 'orchid', 'willow', 'crake', 'tern'];

/** The same list for the same seed on every device. */
export function makeList(seed: number): Species[] {
  const random = seeded(seed);
  return Array.from({ length: ROWS }, (_, id) => ({
    id,
    name: `${FIRST[Math.floor(random() * FIRST.length)]} ${SECOND[Math.floor(random() * SECOND.length)]} ${id}`,
    count: Math.floor(random() * 900),
    wetland: random() < 0.6,
  }));
}

/** By name, code unit by code unit: the language of the device must not change the work. */
export function byName(list: readonly Species[]): Species[] {
  return [...list].sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id - b.id));
}

/** Which rows are edited in a round, and to which count. */
export function edits(seed: number): { row: number; count: number }[] {
  const random = seeded(seed ^ 0x5eed);
  return Array.from({ length: EDITS }, () => ({ row: Math.floor(random() * ROWS), count: Math.floor(random() * 900) }));
}

/** Folds what a reader of the finished list would see into one number. */
export function foldText(digest: number, text: string): number {
  let h = digest >>> 0;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return h;
}

/** The known answer: what the list shows after sorting, filtering and editing, without any page. */
export function expectedDigest(seed: number): number {
  const list = makeList(seed).map((species) => ({ ...species }));
  for (const edit of edits(seed)) list[edit.row]!.count = edit.count;
  return byName(list)
    .filter((species) => species.wetland)
    .reduce((h, species) => foldText(h, `${species.name}${species.count}`), 0x811c9dc5);
}
