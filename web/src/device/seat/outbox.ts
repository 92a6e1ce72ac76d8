import type { IDBPDatabase } from 'idb';
import { DATABASE, openKept, type Kept as Schema } from '../../unsent/database.ts';
import { bringRuns } from '../../unsent/old-runs.ts';
import type { RunBody, Seat } from './api.ts';

/** A finished run that the server has not confirmed yet. */
export interface Kept {
  key: string;
  body: RunBody;
  finishedAt: number;
  /** The seat that it was measured for; of the seat of now where it is absent. */
  seat?: Seat;
  /** Why the server would not take it. It stays until it is delivered again and taken, or given up by a person. */
  refused?: string;
}

/** A run that had begun: found again after a reload, it tells that the run was cut off. */
export interface Begun {
  testId: number;
  runNumber: number;
  attempt: number;
  at: number;
}

/** What this device was the last time, as a note in its own browser. */
export interface KnownDevice {
  /** Of the lab it was at. */
  shelf: string | null;
  maker: string;
  name: string;
  unit: string | null;
  /** Facts that were typed, by key. */
  typed: Record<string, string>;
}

/** A code that was given to the bench whose answer this device has not kept yet. */
export interface Joining {
  code: string;
  /** Made here; with it the same code gives the same seat again. */
  secret: string;
}

type Ordered = Kept & { order: number };

interface Noted {
  testId: number;
  runNumber: number;
  notes: unknown;
}

interface Gone {
  testId: number;
  runNumber: number;
  times: number;
}

/**
 * What this device keeps until the server has confirmed it, in the browser's own database: it outlives a reload, a
 * closed tab and an empty battery. One session at a time.
 */
export class Outbox {
  private readonly db: IDBPDatabase<Schema>;
  private constructor(db: IDBPDatabase<Schema>) {
    this.db = db;
  }

  static async open(name = DATABASE): Promise<Outbox> {
    const db = await openKept(name);
    await bringRuns(db);
    return new Outbox(db);
  }

  /** Keeps a finished run and forgets that it was begun, both or neither. */
  async keep(kept: Kept): Promise<void> {
    const change = this.db.transaction(['runs', 'device'], 'readwrite');
    const last = await change.objectStore('runs').index('order').openCursor(null, 'prev');
    await change.objectStore('runs').put({ ...kept, order: (last?.value.order ?? 0) + 1 });
    await change.objectStore('device').delete('begun');
    // A run that was cut off goes on from them; one that is over needs them no more.
    if (kept.body.state !== 'STOPPED') await change.objectStore('device').delete('notes');
    await change.done;
  }

  /** What is still to be delivered, oldest first. */
  waiting = async (): Promise<Kept[]> => (await this.all()).filter((run) => run.refused === undefined);
  /** What the server would not take, of this and of earlier sessions. */
  refused = async (): Promise<Kept[]> => (await this.all()).filter((run) => run.refused !== undefined);
  private all = async () => (await this.db.getAllFromIndex('runs', 'order')) as Ordered[];

  /** The server has it now. */
  confirmed = (key: string): Promise<void> => this.db.delete('runs', key);

  /** The server would not take it: it is no longer sent by itself, and stays. */
  refuse = (key: string, why: string): Promise<void> => this.change(key, (run) => ({ ...run, refused: why }));
  /** A person wants it sent once more. */
  again = (key: string): Promise<void> =>
    this.change(key, (run) => {
      const { refused: _why, ...rest } = run;
      return rest;
    });

  private async change(key: string, how: (run: Ordered) => Ordered): Promise<void> {
    const change = this.db.transaction('runs', 'readwrite');
    const run = (await change.store.get(key)) as Ordered | undefined;
    if (run) await change.store.put(how(run));
    await change.done;
  }

  /** What a run that takes hours has so far; of another run there is nothing. */
  async notes(testId: number, runNumber: number): Promise<unknown> {
    const kept = (await this.db.get('device', 'notes')) as Noted | undefined;
    return kept?.testId === testId && kept.runNumber === runNumber ? kept.notes : null;
  }
  note = async (testId: number, runNumber: number, notes: unknown): Promise<void> =>
    void (await this.db.put('device', { testId, runNumber, notes } satisfies Noted, 'notes'));

  /** The page went away in the middle of this run. @returns how often by now */
  async goneIn(testId: number, runNumber: number): Promise<number> {
    const before = (await this.db.get('device', 'gone')) as Gone | undefined;
    const times = before?.testId === testId && before.runNumber === runNumber ? before.times + 1 : 1;
    await this.db.put('device', { testId, runNumber, times } satisfies Gone, 'gone');
    return times;
  }

  begin = async (begun: Begun): Promise<void> => void (await this.db.put('device', begun, 'begun'));
  begun = async (): Promise<Begun | null> => ((await this.db.get('device', 'begun')) as Begun | undefined) ?? null;

  async seat(): Promise<Seat | null> {
    const token = (await this.db.get('device', 'token')) as string | undefined;
    if (!token) return null;
    return { token, shelf: ((await this.db.get('device', 'shelf')) as string | undefined) ?? null };
  }

  /**
   * Notes which code is about to be given away. A kill or a lost answer after that costs nothing: the same code is asked
   * with the same secret.
   */
  async join(code: string): Promise<Joining> {
    const change = this.db.transaction('device', 'readwrite');
    const before = (await change.store.get('joining')) as Joining | undefined;
    const joining = before && plain(before.code) === plain(code) ? before : { code, secret: freshSecret() };
    await change.store.put(joining, 'joining');
    await change.done;
    return joining;
  }
  joining = async (): Promise<Joining | null> =>
    ((await this.db.get('device', 'joining')) as Joining | undefined) ?? null;
  /** The bench said no, or its holder types another code. */
  stopJoining = (): Promise<void> => this.db.delete('device', 'joining');

  /** Starts anew for another session. What no server has taken yet stays, with the seat that it was measured for. */
  takeSeat = (seat: Seat): Promise<void> => this.leave(seat);

  allowStorage = async (yes: boolean): Promise<void> => void (await this.db.put('device', yes, 'storageAllowed'));
  storageAllowed = async (): Promise<boolean> => (await this.db.get('device', 'storageAllowed')) === true;

  /** Speed of the probe before anything else ran in this session; a reload finds a warm device. */
  keepCold = async (speed: number): Promise<void> => void (await this.db.put('device', speed, 'cold'));
  cold = async (): Promise<number | null> => ((await this.db.get('device', 'cold')) as number | undefined) ?? null;

  /** What it was is proposed the next time; it goes with a word of its owner. */
  remember = async (known: KnownDevice): Promise<void> => void (await this.db.put('device', known, 'known'));
  forget = async (): Promise<void> => void (await this.db.delete('device', 'known'));
  /** Of this lab alone: elsewhere it may be called otherwise. */
  async known(shelf: string | null): Promise<KnownDevice | null> {
    const known = (await this.db.get('device', 'known')) as KnownDevice | undefined;
    return known && known.shelf === shelf ? known : null;
  }

  ending = async (how: 'DONE' | 'STOPPED'): Promise<void> => void (await this.db.put('device', how, 'ending'));
  ended = async (): Promise<'DONE' | 'STOPPED' | null> =>
    ((await this.db.get('device', 'ending')) as 'DONE' | 'STOPPED' | undefined) ?? null;

  /**
   * The session is over. Runs that were not taken are put down with their seat, so that they can be sent later.
   *
   * @param next seat that is taken in the same step
   */
  async leave(next?: Seat): Promise<void> {
    const seat = await this.seat();
    const change = this.db.transaction(['runs', 'device'], 'readwrite');
    for (const run of (await change.objectStore('runs').getAll()) as Ordered[])
      await change.objectStore('runs').put({
        ...run,
        ...(seat && !run.seat && { seat }),
        refused: run.refused ?? 'It was not delivered before its session was left.',
      } as Ordered);
    for (const key of await change.objectStore('device').getAllKeys())
      if (key !== 'known') await change.objectStore('device').delete(key);
    if (next) await change.objectStore('device').put(next.token, 'token');
    if (next?.shelf) await change.objectStore('device').put(next.shelf, 'shelf');
    await change.done;
  }

  /** A person gives up what no server would take. */
  giveUp = (key: string): Promise<void> => this.db.delete('runs', key);
}

/** "teal 42 fen" is the code TEAL-42-FEN, as the bench reads it. */
const plain = (code: string) => code.toUpperCase().replace(/[^A-Z0-9]/g, '');

/** 32 random bytes as base64url. */
const freshSecret = () =>
  btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(32))))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');
