import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A score on its way from the keyboard to the ledger. */
export interface Typed {
  session: number;
  testId: number;
  /** From 1. */
  run: number;
  text: string;
  byStopwatch: boolean;
  /** Being typed; entered and not confirmed yet; or refused by the server, with its reason. */
  state: 'typing' | 'waiting' | 'refused';
  why?: string;
  /** Later ones are higher: what is typed over another takes its place. */
  order: number;
}

/** The server looked at a score and will not take it. */
export class NotTaken extends Error {}

type Key = [session: number, testId: number, run: number];
interface Shape extends DBSchema {
  typed: { key: Key; value: Typed; indexes: { session: number } };
}

/** Each person on each shelf has a database of its own: what waits in one is sent for nobody else, and nowhere else. */
function kept(owner: string): Promise<IDBPDatabase<Shape>> {
  return openDB<Shape>(`yarrowmark-sheet ${owner}`, 1, {
    upgrade(made) {
      made.createObjectStore('typed', { keyPath: ['session', 'testId', 'run'] }).createIndex('session', 'session');
    },
  });
}

/** Sessions with scores that were entered on this computer and are not stored yet. */
export async function unsentSessions(owner: string): Promise<number[]> {
  const db = await kept(owner);
  try {
    const waiting = (await db.getAll('typed')).filter((t) => t.state === 'waiting');
    return [...new Set(waiting.map((t) => t.session))];
  } finally {
    db.close();
  }
}

const UNKEPT = 'This browser keeps nothing for this page, so what is typed here is lost when it is closed.';

interface Around {
  /** Confirms, throws NotTaken, or anything else where it is to be tried again. */
  send: (typed: Typed) => Promise<void>;
  /** Of two tabs with one session, one sends at a time. */
  alone?: (name: string, work: () => Promise<void>) => Promise<void>;
  retryMs?: number;
  /** Whose scores they are: the shelf and the person. */
  owner: string;
}

async function withLock(name: string, work: () => Promise<void>): Promise<void> {
  if (globalThis.navigator?.locks) await navigator.locks.request(name, work);
  else await work();
}

/**
 * What a person typed into a session, kept on this computer from the first key until the server has confirmed it: a click
 * beside the field, a reload, a closed lid and a lost network take nothing away.
 */
export class TypedScores {
  /** Null where the browser gives none or it is full: what is typed is then held by this page alone. */
  private db: IDBPDatabase<Shape> | null;
  private readonly session: number;
  private readonly around: Around;
  private all: readonly Typed[] = [];
  private listeners = new Set<() => void>();
  private writes: Promise<unknown> = Promise.resolve();
  private sending: Promise<void> = Promise.resolve();
  private order = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly news: BroadcastChannel | undefined;
  private closed = false;
  /** How many look at it. */
  private looking = 1;
  /** Why nothing gets through just now. */
  trouble: string | null = null;

  private constructor(db: IDBPDatabase<Shape> | null, session: number, around: Around) {
    this.db = db;
    this.session = session;
    this.around = around;
    if (typeof BroadcastChannel !== 'undefined') {
      this.news = new BroadcastChannel(`yarrowmark-sheet-${around.owner}-${session}`);
      this.news.onmessage = () => void (this.closed || this.look());
    }
  }

  static async open(session: number, around: Around): Promise<TypedScores> {
    let db: IDBPDatabase<Shape> | null = null;
    try {
      db = await kept(around.owner);
    } catch {
      // The sheet is there all the same, and says at the first key that nothing is kept.
    }
    const scores = new TypedScores(db, session, around);
    await scores.look();
    scores.kick();
    return scores;
  }

  snapshot = (): readonly Typed[] => this.all;
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  at(testId: number, run: number): Typed | undefined {
    return this.all.find((t) => t.testId === testId && t.run === run);
  }

  /** Each key: what stands in the field now. Nothing in it is nothing typed. */
  typing(testId: number, run: number, text: string): void {
    if (text.trim() === '') this.drop(testId, run);
    else this.put({ testId, run, text, byStopwatch: false, state: 'typing' });
  }

  /** It is entered: sent now, or as soon as the server can be reached. */
  enter(testId: number, run: number, text: string, byStopwatch = false): void {
    this.put({ testId, run, text: text.trim(), byStopwatch, state: 'waiting' });
    this.kick();
  }

  /** A person takes back what was typed and not stored. */
  drop(testId: number, run: number): void {
    if (!this.at(testId, run)) return;
    this.tell(this.all.filter((t) => t.testId !== testId || t.run !== run));
    this.write((db) => db.delete('typed', [this.session, testId, run]));
  }

  /** Sends once more what was refused. */
  again(): void {
    for (const t of this.all.filter((one) => one.state === 'refused'))
      this.enter(t.testId, t.run, t.text, t.byStopwatch);
  }

  /** Enters what is only typed, tries to send everything once, and says what is left. */
  async settle(): Promise<{ waiting: Typed[]; refused: Typed[] }> {
    for (const t of this.all.filter((one) => one.state === 'typing'))
      await this.replace(t, { ...t, text: t.text.trim(), state: 'waiting' });
    this.kick();
    await this.sending;
    return {
      waiting: this.all.filter((t) => t.state === 'waiting'),
      refused: this.all.filter((t) => t.state === 'refused'),
    };
  }

  /** Tries again now, for instance because the network is back. */
  kick = (): void => {
    if (this.closed) return;
    clearTimeout(this.timer);
    this.sending = this.sending.then(() => this.deliver());
  };

  /** Nobody looks at it any more: it goes on until everything that was entered is stored, and ends then. */
  leave(): void {
    this.looking--;
    this.kick();
  }

  /** Somebody looks at it again. False where it has ended meanwhile. */
  stay(): boolean {
    if (!this.closed) this.looking++;
    return !this.closed;
  }

  close(): void {
    if (this.closed) return;
    this.closed = true;
    clearTimeout(this.timer);
    this.listeners.clear();
    // What is on its way is still put down.
    void Promise.allSettled([this.writes, this.sending]).then(() => {
      this.news?.close();
      this.db?.close();
    });
  }

  private put(typed: Omit<Typed, 'session' | 'order'>): void {
    const made: Typed = { ...typed, session: this.session, order: ++this.order };
    this.tell([...this.all.filter((t) => t.testId !== made.testId || t.run !== made.run), made]);
    this.write((db) => db.put('typed', made));
  }

  /** One after the other, so that the last key is what stays. */
  private write(how: (db: IDBPDatabase<Shape>) => Promise<unknown>): void {
    if (!this.db) this.trouble ??= UNKEPT;
    this.writes = this.writes
      .then(() => this.db && how(this.db))
      .then(
        () => this.news?.postMessage(null),
        () => {
          this.db?.close();
          this.db = null;
          this.trouble = UNKEPT;
          this.tell(this.all);
        },
      );
  }

  private tell(all: readonly Typed[]): void {
    this.all = all;
    this.listeners.forEach((listener) => listener());
  }

  /** What is kept, by whichever tab. */
  private async look(): Promise<void> {
    for (;;) {
      const written = this.writes;
      await written;
      if (!this.db) return;
      const there = await this.db.getAllFromIndex('typed', 'session', this.session);
      // A key that was pressed meanwhile is not in what was read.
      if (written !== this.writes) continue;
      this.order = Math.max(this.order, ...there.map((t) => t.order));
      this.tell(there.sort((a, b) => a.order - b.order));
      return;
    }
  }

  private async deliver(): Promise<void> {
    const alone = this.around.alone ?? withLock;
    await alone(`yarrowmark-sheet-${this.around.owner}-${this.session}`, async () => {
      for (;;) {
        if (this.closed) return;
        await this.look();
        const next = this.all.find((t) => t.state === 'waiting');
        if (!next) {
          if (this.trouble) {
            this.trouble = null;
            this.tell(this.all);
          }
          if (this.looking === 0) this.close();
          return;
        }
        try {
          await this.around.send(next);
          await this.replace(next, null);
        } catch (error) {
          if (error instanceof NotTaken) await this.replace(next, { ...next, state: 'refused', why: error.message });
          else {
            this.trouble = error instanceof Error ? error.message : String(error);
            this.tell(this.all);
            clearTimeout(this.timer);
            this.timer = setTimeout(this.kick, this.around.retryMs ?? 3_000);
            return;
          }
        }
      }
    });
  }

  /** Unless something else was typed at the same place meanwhile, here or in another tab. */
  private async replace(sent: Typed, by: Typed | null): Promise<void> {
    await this.writes;
    if (!this.db) {
      if (this.at(sent.testId, sent.run)?.order === sent.order)
        this.tell([...this.all.filter((t) => t.order !== sent.order), ...(by ? [by] : [])]);
      return;
    }
    const change = this.db.transaction('typed', 'readwrite');
    const key: Key = [sent.session, sent.testId, sent.run];
    const there = await change.store.get(key);
    if (there?.order === sent.order && there.text === sent.text) {
      if (by) await change.store.put(by);
      else await change.store.delete(key);
    }
    await change.done;
    this.news?.postMessage(null);
    await this.look();
  }
}
