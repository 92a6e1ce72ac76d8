import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** Whose it is: what one person typed on one shelf is shown to nobody else, and sent nowhere else. */
export interface Owner {
  shelf: string;
  person: string;
}

/** Something that a person typed and that the server has not confirmed yet. */
export interface Unsent {
  shelf: string;
  person: string;
  kind: 'piece' | 'score';
  /** Within its kind: what it is about. */
  key: string;
  body: unknown;
  /** When it was typed first, as an ISO time. */
  since: string;
  /** Rises with every change, so that of two the later one is known. */
  order: number;
}

type Key = [shelf: string, person: string, kind: string, key: string];
interface Shape extends DBSchema {
  unsent: { key: Key; value: Unsent };
}

const JOURNAL = 'yarrowmark.unsent.';
const NAME = 'yarrowmark-unsent';

function storage(): Storage | null {
  try {
    return globalThis.localStorage ?? null;
  } catch {
    // A browser that gives the page no storage.
    return null;
  }
}

/**
 * What is typed and not confirmed yet, kept on this computer from the first key. A change is put down at once in a journal that
 * can be written while a page closes, and then in the browser's database, which holds more; the journal is emptied as the
 * database confirms.
 */
export class UnsentStore {
  private readonly owner: Owner;
  private readonly db: IDBPDatabase<Shape> | null;
  private writes: Promise<unknown> = Promise.resolve();
  private order = 0;

  private constructor(owner: Owner, db: IDBPDatabase<Shape> | null) {
    this.owner = owner;
    this.db = db;
  }

  static async open(owner: Owner, name = NAME): Promise<UnsentStore> {
    let db: IDBPDatabase<Shape> | null = null;
    try {
      db = await openDB<Shape>(name, 1, {
        upgrade: (made) => void made.createObjectStore('unsent', { keyPath: ['shelf', 'person', 'kind', 'key'] }),
        // Another tab with a newer program wants to change the database.
        blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
      });
    } catch {
      // What is typed is then in the journal alone, as far as that reaches.
    }
    const store = new UnsentStore(owner, db);
    await store.absorb();
    return store;
  }

  /** What is kept of a kind, the oldest first. @param about what its key begins with */
  async all(kind: Unsent['kind'], about = ''): Promise<Unsent[]> {
    await this.writes;
    const { shelf, person } = this.owner;
    const from: Key = [shelf, person, kind, about];
    const to: Key = [shelf, person, kind, `${about}\uffff`];
    const there = this.db
      ? await this.db.getAll('unsent', IDBKeyRange.bound(from, to))
      : this.journal().filter((u) => u.kind === kind && u.key.startsWith(about));
    return there.sort((a, b) => a.order - b.order);
  }

  put(kind: Unsent['kind'], key: string, body: unknown, since = new Date().toISOString()): void {
    this.order = Math.max(this.order + 1, Date.now() * 1000);
    const made: Unsent = { ...this.owner, kind, key, body, since, order: this.order };
    const at = this.journalKey(kind, key);
    try {
      storage()?.setItem(at, JSON.stringify(made));
    } catch {
      // Too much for the journal; the database takes it.
    }
    this.write(async (db) => {
      await db.put('unsent', made);
      this.leaveJournal(at, made.order);
    });
  }

  /** It is confirmed, or not wanted. */
  remove(kind: Unsent['kind'], key: string): void {
    storage()?.removeItem(this.journalKey(kind, key));
    this.write((db) => db.delete('unsent', [this.owner.shelf, this.owner.person, kind, key]));
  }

  /** Once everything before it is put down. */
  async settled(): Promise<void> {
    await this.writes;
  }

  close(): void {
    void this.writes.finally(() => this.db?.close());
  }

  /** One after the other, so that the last change is what stays. */
  private write(how: (db: IDBPDatabase<Shape>) => Promise<unknown>): void {
    this.writes = this.writes
      .then(() => this.db && how(this.db))
      .catch(() => {
        // A full or broken database: the journal still has what it could take.
      });
  }

  private journalKey(kind: string, key: string): string {
    return `${JOURNAL}${this.owner.shelf}.${this.owner.person}.${kind}.${key}`;
  }

  private leaveJournal(at: string, order: number): void {
    const there = storage()?.getItem(at);
    if (there && (JSON.parse(there) as Unsent).order === order) storage()?.removeItem(at);
  }

  /** Of this owner alone. */
  private journal(): Unsent[] {
    const found: Unsent[] = [];
    const from = storage();
    for (let i = 0; from && i < from.length; i++) {
      const at = from.key(i)!;
      if (!at.startsWith(JOURNAL)) continue;
      try {
        const one = JSON.parse(from.getItem(at) ?? '') as Unsent;
        if (one.shelf === this.owner.shelf && one.person === this.owner.person) found.push(one);
      } catch {
        // Cut off while it was written: the database has what was before.
      }
    }
    return found;
  }

  /** What a page that closed had no time to put into the database. */
  private async absorb(): Promise<void> {
    if (!this.db) return;
    for (const one of this.journal()) {
      const change = this.db.transaction('unsent', 'readwrite');
      const there = await change.store.get([one.shelf, one.person, one.kind, one.key]);
      if (!there || there.order < one.order) await change.store.put(one);
      await change.done;
      this.leaveJournal(this.journalKey(one.kind, one.key), one.order);
    }
  }
}
