import { openDB, type IDBPDatabase } from 'idb';
import type { Kept } from './database.ts';

const BEFORE = 'yarrowmark-device';

/** What earlier versions of the program kept of a device in a database of its own comes over, once. */
export async function bringRuns(db: IDBPDatabase<Kept>): Promise<void> {
  let there: IDBDatabaseInfo[] = [];
  try {
    there = await indexedDB.databases();
  } catch {
    // A browser that cannot name its databases.
  }
  if (!there.some((one) => one.name === BEFORE)) return;
  const old = await openDB(BEFORE);
  if (!old.objectStoreNames.contains('runs')) return old.close();
  const runs = (await old.getAll('runs')) as { key: string; order: number }[];
  const keys = await old.getAllKeys('state');
  const values = await old.getAll('state');
  const change = db.transaction(['runs', 'device'], 'readwrite');
  for (const run of runs) await change.objectStore('runs').put(run);
  for (const [i, key] of keys.entries()) await change.objectStore('device').put(values[i], key as string);
  await change.done;
  old.close();
  indexedDB.deleteDatabase(BEFORE);
}
