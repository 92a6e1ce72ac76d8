import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** Something that a person typed and that the server has not confirmed yet. */
export interface Unsent {
  /** Whose it is: what one person typed on one shelf is shown to nobody else, and sent nowhere else. */
  shelf: string;
  person: string;
  kind: UnsentKind;
  /** Within its kind: what it is about. */
  key: string;
  body: unknown;
  /** When it was typed first, as an ISO time. */
  since: string;
  /** Rises with every change, so that of two the later one is known. */
  order: number;
  /** It is confirmed or not wanted; kept for a while, so that a slower tab does not bring it back. */
  gone?: true;
}
/** A piece of a write-up, a score on its sheet, or a form that is not saved yet. */
export type UnsentKind = 'piece' | 'score' | 'form';
export type UnsentKey = [shelf: string, person: string, kind: string, key: string];

/** All that this program keeps in a browser until the server has it. */
export interface Kept extends DBSchema {
  unsent: { key: UnsentKey; value: Unsent };
  /** Finished runs of the device that this browser is, in the order they were made. */
  runs: { key: string; value: { key: string; order: number }; indexes: { order: number } };
  /** What that device knows of its round, by a name. */
  device: { key: string; value: unknown };
}

export const DATABASE = 'yarrowmark';

export function openKept(name: string): Promise<IDBPDatabase<Kept>> {
  return openDB<Kept>(name, 1, {
    upgrade(made) {
      made.createObjectStore('unsent', { keyPath: ['shelf', 'person', 'kind', 'key'] });
      made.createObjectStore('runs', { keyPath: 'key' }).createIndex('order', 'order');
      made.createObjectStore('device');
    },
    // Another tab with a newer program wants to change the database.
    blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
  });
}
