// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { expect, test, vi } from 'vitest';
import { NotTaken, TypedScores, unsentSessions, type Typed } from '../sheet/typed.ts';
import { PieceChanged, PieceGone, PieceTexts } from '../writeup/text/piece-texts.ts';
import type { Schemas } from '../api/client.ts';
import { UnsentStore, type Owner } from './store.ts';

type Row = Schemas['PieceRow'];
const SHELVES = ['a', 'b'] as const;
const PEOPLE = ['wren', 'reed'] as const;
const WRITE_UP = 1;
const SESSION = 5;
const FORM = 'plan';

/** One shelf's server: what it stored, and in whose name. */
class Shelf {
  readonly name: string;
  readonly scores = new Map<string, string>();
  readonly pieces = new Map<number, Row>();
  /** Each sentence that is in a text, with who brought it. */
  readonly sentences = new Map<string, string>();

  constructor(name: string) {
    this.name = name;
    for (const id of [1, 2])
      this.pieces.set(id, {
        id,
        kind: 'TEXT',
        body: { text: 'It begins.' },
        revision: 1,
        changedBy: '',
      } as unknown as Row);
  }
}

/** What stands at the address just now, and whether anything gets there and back. */
class Address {
  readonly shelves = SHELVES.map((name) => new Shelf(name));
  shelf = this.shelves[0]!;
  reachable = true;
  /** What is sent arrives, and its answer is lost. */
  deaf = false;

  /** As the server does: a page of another person or shelf is refused, and comes again later. */
  private meet(owner: Owner): Shelf {
    if (!this.reachable) throw new Error('away');
    if (owner.shelf !== this.shelf.name) throw new Error('a page of another shelf');
    return this.shelf;
  }
  private answer<T>(answer: T): T {
    if (this.deaf) throw new Error('the answer was lost');
    return answer;
  }

  /** The way there and back takes a moment, in which somebody goes on typing. */
  private way = () => new Promise((go) => setTimeout(go));

  async score(owner: Owner, typed: Typed): Promise<void> {
    await this.way();
    const shelf = this.meet(owner);
    if (typed.text.startsWith('no')) throw new NotTaken('no score');
    shelf.scores.set(`${owner.person} ${typed.testId}.${typed.run}`, typed.text);
    return this.answer(undefined);
  }

  async piece(owner: Owner, id: number, body: unknown, revision: number): Promise<Row> {
    await this.way();
    const shelf = this.meet(owner);
    const there = shelf.pieces.get(id);
    if (!there) throw new PieceGone('gone');
    if (there.revision !== revision) throw new PieceChanged(there);
    const row = { ...there, body, revision: revision + 1 } as Row;
    shelf.pieces.set(id, row);
    for (const sentence of sentencesOf((body as { text: string }).text))
      if (!shelf.sentences.has(sentence)) shelf.sentences.set(sentence, owner.person);
    return this.answer(row);
  }
}

const sentencesOf = (text: string) => text.match(/\[[^\]]+\]/g) ?? [];

let line: Promise<unknown> = Promise.resolve();
/** One tab at a time; a tab that goes lets the next one in. */
const alone = (work: () => Promise<void>, gone: Promise<void>): Promise<void> => {
  const turn = line.then(() => Promise.race([work(), gone]));
  line = turn.catch(() => undefined);
  return turn;
};
const NEVER = new Promise<never>(() => undefined);

/** A tab with somebody signed in. */
class Tab {
  readonly store: UnsentStore;
  readonly scores: TypedScores;
  readonly texts: PieceTexts;
  readonly name: string;
  readonly owner: Owner;
  readonly address: Address;
  private dead = false;
  private die: () => void = () => undefined;
  private readonly gone = new Promise<void>((resolve) => (this.die = resolve));

  constructor(name: string, owner: Owner, address: Address, database: string) {
    this.name = name;
    this.owner = owner;
    this.address = address;
    sessionStorage.setItem('yarrowmark.tab', name);
    this.store = new UnsentStore(owner, database);
    const unlessDead = async <T>(send: () => Promise<T>): Promise<T> => {
      if (this.dead) return NEVER;
      try {
        return await send();
      } finally {
        if (this.dead) await NEVER;
      }
    };
    this.scores = new TypedScores(this.store, SESSION, {
      send: (typed) => unlessDead(() => address.score(owner, typed)),
      alone: (_name, work) => alone(work, this.gone),
      retryMs: 1_000_000,
    });
    this.texts = new PieceTexts(this.store, WRITE_UP, {
      send: (piece, body, revision) => unlessDead(() => address.piece(owner, piece, body, revision)),
      pauseMs: 1,
      retryMs: 1_000_000,
    });
  }

  async open(): Promise<this> {
    await this.store.ready;
    if (this.owner.shelf === this.address.shelf.name) await this.texts.resume([...this.address.shelf.pieces.values()]);
    return this;
  }

  /** False where the piece is not on the page. */
  write(piece: number, sentence: string): boolean {
    const row = this.address.shelf.pieces.get(piece);
    if (!row || this.owner.shelf !== this.address.shelf.name) return false;
    const now = (this.texts.snapshot().get(piece)?.body ?? row.body) as { text: string };
    this.texts.type(row, { text: `${now.text}\n${sentence}` });
    return true;
  }

  form(value: string): void {
    this.store.put('form', `${FORM}\n${this.store.tab}`, { from: '', now: value });
  }

  /** The page goes on the spot: nothing that was still to be done happens. */
  kill(): void {
    this.dead = true;
    this.die();
    const inside = this.store as unknown as { db: unknown; tabs?: BroadcastChannel };
    inside.db = {
      transaction: () => ({ store: { get: () => NEVER, put: () => NEVER }, done: NEVER }),
      get: () => NEVER,
    };
    inside.tabs?.close();
    this.scores.close();
    this.texts.leave();
  }

  async end(): Promise<void> {
    await this.texts.flush();
    this.scores.close();
    this.texts.leave();
    this.store.close();
  }

  /** What is here and not stored: to be sent, to be chosen, or offered. */
  held(): string {
    return JSON.stringify([this.store.all('piece'), this.store.all('score'), this.store.all('form')]);
  }
}

/** Numbers from a seed (mulberry32), so that a sequence that fails can be run again. */
function seeded(seed: number) {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

async function sequence(seed: number): Promise<void> {
  const random = seeded(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const database = `sequence-${seed}`;
  const address = new Address();
  let made = 0;
  const openTab = (name: string, person: string) =>
    new Tab(name, { shelf: address.shelf.name, person }, address, database).open();
  const tabs = [await openTab('t0', 'wren'), await openTab('t1', 'wren')];
  const sentences: { shelf: string; person: string; sentence: string }[] = [];
  const scores = new Map<string, { owner: Owner; place: string; text: string; entered: boolean }>();
  const forms = new Map<string, { owner: Owner; value: string }>();

  for (let step = 0; step < 20; step++) {
    const which = random() < 0.5 ? 0 : 1;
    const tab = tabs[which]!;
    const { owner } = tab;
    const here = owner.shelf === address.shelf.name;
    const what = random();
    if (what < 0.24 && here) {
      const sentence = `[${owner.shelf} ${owner.person} ${made++}]`;
      if (tab.write(pick([1, 2]), sentence)) sentences.push({ ...owner, sentence });
    } else if (what < 0.44 && here) {
      // Each tab has places of its own: of two at one place the later one counts, and both orders are right.
      const [testId, run] = [pick([1, 2]), 1 + which];
      const text = String(100 + made++);
      const entered = random() < 0.6;
      if (entered) tab.scores.enter(testId, run, text);
      else tab.scores.typing(testId, run, text);
      scores.set(`${owner.shelf} ${owner.person} ${testId}.${run}`, {
        owner,
        place: `${testId}.${run}`,
        text,
        entered,
      });
    } else if (what < 0.52) {
      const value = `form ${made++}`;
      tab.form(value);
      forms.set(`${owner.shelf} ${owner.person} ${tab.store.tab}`, { owner, value });
    } else if (what < 0.6) address.reachable = !address.reachable;
    else if (what < 0.64) address.deaf = !address.deaf;
    else if (what < 0.74) {
      // A reload, a crash, or the tab is closed and another one opened; signed in is whoever was.
      tab.kill();
      tabs[which] = await openTab(random() < 0.5 ? tab.name : `t${which}.${made++}`, owner.person);
    } else if (what < 0.8) {
      // Another person signs in on the page.
      await tab.end();
      tabs[which] = await openTab(tab.name, pick(PEOPLE));
    } else if (what < 0.84) {
      // Another shelf is started at the address; pages that are open find out as they send.
      address.shelf = pick(address.shelves);
      if (random() < 0.5) {
        tab.kill();
        tabs[which] = await openTab(tab.name, owner.person);
      }
    } else if (what < 0.87) address.shelf.pieces.delete(2);
    else if (what < 0.89) await tab.texts.flush();
    else if (what < 0.93) void tab.texts.flush();
    else if (what < 0.96) await tab.scores.settle();
    else await new Promise((go) => setTimeout(go, 2));
  }

  for (const tab of tabs) tab.kill();
  address.reachable = true;
  address.deaf = false;
  const held = new Map<string, string>();
  // Everybody comes back once more on every shelf, in the tabs there were and in a new one.
  for (const shelf of address.shelves)
    for (const person of PEOPLE) {
      address.shelf = shelf;
      for (const name of ['t0', 't1', 'last']) {
        const tab = await openTab(name, person);
        for (const [piece, text] of tab.texts.snapshot())
          if (text.state === 'conflict') tab.texts.settle(piece, 'mine');
        await tab.texts.flush();
        await tab.texts.flush();
        for (const session of unsentSessions(tab.store)) expect(session).toBe(SESSION);
        tab.scores.kick();
        await line;
        await tab.store.settled();
        held.set(`${shelf.name} ${person}`, tab.held());
        await tab.end();
      }
    }

  for (const { shelf, person, sentence } of sentences) {
    const there = address.shelves.find((s) => s.name === shelf)!;
    const kept = held.get(`${shelf} ${person}`)!.includes(sentence);
    expect(there.sentences.has(sentence) || kept, `seed ${seed}: ${sentence} is lost`).toBe(true);
    for (const other of address.shelves)
      if (other !== there)
        expect(other.sentences.has(sentence), `seed ${seed}: ${sentence} on ${other.name}`).toBe(false);
    expect([undefined, person], `seed ${seed}: who brought ${sentence}`).toContain(there.sentences.get(sentence));
    // What is not stored yet is shown to nobody else.
    if (!there.sentences.has(sentence))
      for (const [whose, what] of held)
        if (whose !== `${shelf} ${person}`)
          expect(what, `seed ${seed}: ${sentence} with ${whose}`).not.toContain(sentence);
  }
  for (const [place, { owner, text, entered }] of scores) {
    const there = address.shelves.find((s) => s.name === owner.shelf)!;
    const at = place.slice(owner.shelf.length + 1);
    const stored = there.scores.get(at) === text;
    const kept = held.get(`${owner.shelf} ${owner.person}`)!.includes(`"text":"${text}"`);
    expect(stored || (!entered && kept), `seed ${seed}: score ${text} at ${place}`).toBe(true);
    for (const other of address.shelves)
      if (other !== there) expect([...other.scores.values()], `seed ${seed}: score ${text}`).not.toContain(text);
  }
  for (const { owner, value } of forms.values())
    expect(held.get(`${owner.shelf} ${owner.person}`), `seed ${seed}: ${value}`).toContain(`"${value}"`);
}

// Ten times fifty, so that a machine that has much to do is seen to go on.
test.each(Array.from({ length: 10 }, (_, block) => block * 50))(
  'sequences of two tabs, two people and two shelves lose nothing and bring nothing to a wrong place: the 50 after %i of 500',
  async (before) => {
    // Everything happens within one millisecond: no clock says which of two came later.
    const clock = vi.spyOn(Date, 'now').mockReturnValue(1_790_000_000_000);
    try {
      for (let seed = before + 1; seed <= before + 50; seed++) await sequence(seed);
    } finally {
      clock.mockRestore();
    }
  },
);
