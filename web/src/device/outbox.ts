import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { RunBody } from './api.ts';

/** A finished run that the server has not confirmed yet. */
export interface Kept {
  key: string;
  body: RunBody;
  finishedAt: number;
}

/** A run that had begun: found again after a reload, it tells that the run was cut off. */
export interface Begun {
  testId: number;
  runNumber: number;
  attempt: number;
  at: number;
}

interface Shape extends DBSchema {
  runs: { key: string; value: Kept & { order: number }; indexes: { order: number } };
  state: { key: 'token' | 'begun' | 'ending' | 'storageAllowed' | 'cold'; value: unknown };
}

/**
 * What this device keeps until the server has confirmed it, in the browser's own database: it outlives a reload, a
 * closed tab and an empty battery. One session at a time.
 */
export class Outbox {
  private readonly db: IDBPDatabase<Shape>;
  private constructor(db: IDBPDatabase<Shape>) {
    this.db = db;
  }

  static async open(name = 'yarrowmark-device'): Promise<Outbox> {
    return new Outbox(
      await openDB<Shape>(name, 1, {
        upgrade(db) {
          db.createObjectStore('runs', { keyPath: 'key' }).createIndex('order', 'order');
          db.createObjectStore('state');
        },
      }),
    );
  }

  /** Keeps a finished run and forgets that it was begun, both or neither. */
  async keep(kept: Kept): Promise<void> {
    const change = this.db.transaction(['runs', 'state'], 'readwrite');
    const last = await change.objectStore('runs').index('order').openCursor(null, 'prev');
    await change.objectStore('runs').put({ ...kept, order: (last?.value.order ?? 0) + 1 });
    await change.objectStore('state').delete('begun');
    await change.done;
  }

  /** Oldest first. */
  waiting = (): Promise<Kept[]> => this.db.getAllFromIndex('runs', 'order');
  confirmed = (key: string): Promise<void> => this.db.delete('runs', key);

  begin = async (begun: Begun): Promise<void> => void (await this.db.put('state', begun, 'begun'));
  begun = async (): Promise<Begun | null> => ((await this.db.get('state', 'begun')) as Begun | undefined) ?? null;

  token = async (): Promise<string | null> => ((await this.db.get('state', 'token')) as string | undefined) ?? null;

  /** Starts anew for another session. */
  async takeSeat(token: string): Promise<void> {
    const change = this.db.transaction(['runs', 'state'], 'readwrite');
    await change.objectStore('runs').clear();
    await change.objectStore('state').clear();
    await change.objectStore('state').put(token, 'token');
    await change.done;
  }

  allowStorage = async (yes: boolean): Promise<void> => void (await this.db.put('state', yes, 'storageAllowed'));
  storageAllowed = async (): Promise<boolean> => (await this.db.get('state', 'storageAllowed')) === true;

  /** Speed of the probe before anything else ran in this session; a reload finds a warm device. */
  keepCold = async (speed: number): Promise<void> => void (await this.db.put('state', speed, 'cold'));
  cold = async (): Promise<number | null> => ((await this.db.get('state', 'cold')) as number | undefined) ?? null;

  ending = async (how: 'DONE' | 'STOPPED'): Promise<void> => void (await this.db.put('state', how, 'ending'));
  ended = async (): Promise<'DONE' | 'STOPPED' | null> =>
    ((await this.db.get('state', 'ending')) as 'DONE' | 'STOPPED' | undefined) ?? null;

  async leave(): Promise<void> {
    const change = this.db.transaction(['runs', 'state'], 'readwrite');
    await change.objectStore('runs').clear();
    await change.objectStore('state').clear();
    await change.done;
  }
}
