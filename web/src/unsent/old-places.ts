import { openDB } from 'idb';
import type { Unsent, UnsentStore } from './store.ts';

/** A score as the sheet kept it in a database of its own. */
interface OldScore {
  session: number;
  testId: number;
  run: number;
}

/** What earlier versions of the program kept of this owner in three other places comes into the store, once. */
export async function bringFromOldPlaces(store: UnsentStore): Promise<void> {
  const { shelf, person } = store.owner;
  try {
    const there = new Set((await indexedDB.databases()).map((d) => d.name));
    const taken = async <T>(name: string, from: string, bring: (row: T) => boolean) => {
      if (!there.has(name)) return;
      const db = await openDB(name);
      try {
        if (!db.objectStoreNames.contains(from)) return;
        for (const key of await db.getAllKeys(from)) {
          if (!bring((await db.get(from, key)) as T)) continue;
          await store.settled();
          await db.delete(from, key);
        }
      } finally {
        db.close();
      }
    };
    await taken<Unsent>('yarrowmark-unsent', 'unsent', (old) => {
      const mine = old.shelf === shelf && old.person === person;
      if (mine) store.put(old.kind, old.key, old.body, old.since);
      return mine;
    });
    await taken<OldScore>(`yarrowmark-sheet ${shelf} ${person}`, 'typed', ({ session, testId, run, ...body }) => {
      store.put('score', `${session}.${testId}.${run}`, body);
      return true;
    });
  } catch {
    // A browser that cannot name its databases never had them, or keeps nothing.
  }
  const drafts = `yarrowmark.draft.${shelf}.${person}.`;
  for (const key of keysOf(drafts)) {
    try {
      store.put('form', `${key.slice(drafts.length)}\n`, JSON.parse(localStorage.getItem(key)!));
      await store.settled();
    } catch {
      // One that was cut off while it was written.
    }
    localStorage.removeItem(key);
  }
}

function keysOf(prefix: string): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  } catch {
    return [];
  }
}
