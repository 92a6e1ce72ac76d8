import type { IDBPDatabase } from 'idb';
import { Journal, later } from './journal.ts';
import { DATABASE, openKept, type Kept, type Unsent, type UnsentKey, type UnsentKind } from './database.ts';

export type { Unsent, UnsentKind };
export type Owner = Pick<Unsent, 'shelf' | 'person'>;

/** Between two changes by a person there is room for what the program makes of the first, which the second still outdoes. */
const STEP = 10;
const DAY_MS = 86_400_000;

/** What one tab tells the others. */
type News =
  | { put: Unsent }
  /** It opened, it answers one that did, or it closes. */
  | { opened: string }
  | { here: string }
  | { closed: string };

const TAB = 'yarrowmark.tab';
/** Told from all other tabs, and the same after a reload. */
function ownTab(): string {
  const fresh = Math.random().toString(36).slice(2);
  try {
    const there = sessionStorage.getItem(TAB) ?? fresh;
    sessionStorage.setItem(TAB, there);
    return there;
  } catch {
    return fresh;
  }
}

/**
 * What is typed and not confirmed yet, kept on this computer from the first key. A change is put down at once in a journal that
 * can be written while a page closes, and then in the browser's database, which holds more; the journal is emptied as the
 * database confirms. All tabs of one owner hold the same.
 */
export class UnsentStore {
  readonly owner: Owner;
  /** Once it holds what earlier visits left. */
  readonly ready: Promise<void>;
  /** False where this browser keeps nothing: what is typed is then lost with the page. */
  keeps = true;

  /** Where two tabs may hold different things about one place, this tells which is whose. */
  tab = ownTab();

  private loading = true;
  private readonly living = new Set<string>();
  private db: IDBPDatabase<Kept> | null = null;
  private readonly journal: Journal;
  private readonly rows = new Map<string, Unsent>();
  private writes: Promise<unknown>;
  private order = 0;
  private readonly listeners = new Set<() => void>();
  private readonly tabs: BroadcastChannel | undefined;

  constructor(owner: Owner, name = DATABASE) {
    this.owner = owner;
    this.journal = new Journal(owner);
    for (const one of this.journal.all()) this.hear({ put: one });
    if (typeof BroadcastChannel !== 'undefined') {
      this.tabs = new BroadcastChannel(`yarrowmark-unsent ${name} ${owner.shelf} ${owner.person}`);
      this.tabs.onmessage = (message: MessageEvent<News>) => this.hear(message.data);
      this.greet();
      globalThis.window?.addEventListener('pagehide', this.bid);
      globalThis.window?.addEventListener('pageshow', this.greet);
    }
    this.ready = this.load(name);
    this.writes = this.ready;
  }

  static async open(owner: Owner, name?: string): Promise<UnsentStore> {
    const store = new UnsentStore(owner, name);
    await store.ready;
    return store;
  }

  /** What is kept of a kind, the oldest first. @param about what its key begins with */
  all(kind: UnsentKind, about = ''): Unsent[] {
    return [...this.rows.values()]
      .filter((u) => !u.gone && u.kind === kind && u.key.startsWith(about))
      .sort((a, b) => a.order - b.order);
  }

  get(kind: UnsentKind, key: string): Unsent | undefined {
    const there = this.rows.get(at({ kind, key }));
    return there?.gone ? undefined : there;
  }

  /** Whether another tab of this owner is open and goes on with what it holds. */
  lives(tab: string): boolean {
    return this.living.has(tab);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  put(kind: UnsentKind, key: string, body: unknown, since = this.get(kind, key)?.since): Unsent {
    this.order = Math.max(this.order + STEP, Date.now() * 1000);
    const made: Unsent = {
      ...this.owner,
      kind,
      key,
      body,
      since: since ?? new Date().toISOString(),
      order: this.order,
    };
    this.change(made);
    return made;
  }

  /** It is confirmed, or not wanted. What another tab made of it meanwhile stays. */
  remove(kind: UnsentKind, key: string): void {
    const there = this.get(kind, key);
    if (there) this.change({ ...there, body: null, gone: true });
  }

  /**
   * Puts something in the place of what was read, or nothing, unless that was changed meanwhile, here or in another tab.
   *
   * @param by what takes its place; null where it is confirmed
   */
  async replace(read: Unsent, by: { body: unknown } | null): Promise<void> {
    const now = await this.fresh(read);
    if (now?.order !== read.order) return;
    if (by) this.change({ ...now, body: by.body, order: now.order + 1 });
    else this.remove(read.kind, read.key);
    await this.settled();
  }

  /** As it stands by now in whichever tab; undefined where it is gone. */
  async fresh({ kind, key }: Pick<Unsent, 'kind' | 'key'>): Promise<Unsent | undefined> {
    for (;;) {
      const written = this.writes;
      await written;
      if (!this.db) return this.get(kind, key);
      let there: Unsent | undefined;
      try {
        there = await this.db.get('unsent', this.keyOf({ kind, key }));
      } catch {
        // Closed or broken meanwhile: this page knows best.
        return this.get(kind, key);
      }
      // A key that was pressed meanwhile is not in what was read.
      if (written !== this.writes) continue;
      if (there) this.hear({ put: there });
      return this.get(kind, key);
    }
  }

  /** Once everything before it is put down. */
  async settled(): Promise<void> {
    await this.writes;
  }

  close(): void {
    this.listeners.clear();
    this.bid();
    globalThis.window?.removeEventListener('pagehide', this.bid);
    globalThis.window?.removeEventListener('pageshow', this.greet);
    void this.writes.finally(() => {
      this.tabs?.close();
      this.db?.close();
    });
  }

  private greet = (): void => this.tabs?.postMessage({ opened: this.tab } satisfies News);
  private bid = (): void => this.tabs?.postMessage({ closed: this.tab } satisfies News);

  private tell(): void {
    this.listeners.forEach((listener) => listener());
  }

  private hear(news: News): void {
    if ('put' in news) {
      if (!later(news.put, this.rows.get(at(news.put)))) return;
      this.rows.set(at(news.put), news.put);
      this.order = Math.max(this.order, news.put.order);
    } else if ('closed' in news) {
      this.living.delete(news.closed);
    } else if ('opened' in news) {
      // A tab that was doubled has the name of the one it came from until it hears of it.
      if (news.opened !== this.tab) this.living.add(news.opened);
      this.tabs?.postMessage({ here: this.tab } satisfies News);
    } else {
      if (news.here !== this.tab) this.living.add(news.here);
      else if (this.loading) {
        this.tab = `${news.here}+${Math.random().toString(36).slice(2)}`;
        this.greet();
      }
    }
    this.tell();
  }

  private change(made: Unsent): void {
    this.rows.set(at(made), made);
    const journalled = this.journal.write(made);
    this.write(
      async (db) => {
        await this.putDown(db, made);
        this.journal.leave(made);
        this.keep(true);
        this.tabs?.postMessage({ put: made } satisfies News);
      },
      () => {
        // Without a database nothing brings it back.
        if (made.gone) this.journal.leave(made);
        else this.keep(journalled);
      },
    );
    this.tell();
  }

  /** One after the other, so that the last change is what stays. */
  private write(how: (db: IDBPDatabase<Kept>) => Promise<unknown>, failed: () => void): void {
    this.writes = this.writes
      .then(() => {
        if (!this.db) return failed();
        return how(this.db);
      })
      .catch(failed);
  }

  /** Unless another tab put down something later. */
  private async putDown(db: IDBPDatabase<Kept>, one: Unsent): Promise<void> {
    const change = db.transaction('unsent', 'readwrite');
    const there = await change.store.get(this.keyOf(one));
    if (later(one, there)) await change.store.put(one);
    await change.done;
  }

  private keep(kept: boolean): void {
    if (this.keeps === kept) return;
    this.keeps = kept;
    this.tell();
  }

  private keyOf({ kind, key }: Pick<Unsent, 'kind' | 'key'>): UnsentKey {
    return [this.owner.shelf, this.owner.person, kind, key];
  }

  /** What the database holds, and what a page that closed had no time to put into it. */
  private async load(name: string): Promise<void> {
    try {
      this.db = await openKept(name);
      const { shelf, person } = this.owner;
      const mine = IDBKeyRange.bound([shelf, person], [shelf, person, []]);
      for (const one of await this.db.getAll('unsent', mine))
        if (one.gone && one.order < (Date.now() - DAY_MS) * 1000) await this.db.delete('unsent', this.keyOf(one));
        else this.hear({ put: one });
      for (const one of this.journal.all()) {
        await this.putDown(this.db, one);
        this.journal.leave(one);
      }
    } catch {
      // What is typed is then in the journal alone, as far as that reaches.
    }
    this.loading = false;
  }
}

const at = ({ kind, key }: Pick<Unsent, 'kind' | 'key'>) => `${kind}.${key}`;
