// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { afterEach, expect, test, vi } from 'vitest';
import { UnsentStore } from '../unsent/store.ts';
import { NotTaken, TypedScores, unsentSessions, type Typed } from './typed.ts';

/** A ledger that can be out of reach, answer too late, or refuse. */
class Ledger {
  stored = new Map<string, string>();
  reachable = true;
  /** Stores, but the answer is lost on its way back. */
  deaf = false;
  times = 0;

  send = async (typed: Typed): Promise<void> => {
    await Promise.resolve();
    if (!this.reachable) throw new Error('The server cannot be reached.');
    if (typed.text.startsWith('no')) throw new NotTaken(`"${typed.text}" is no score.`);
    this.times++;
    this.stored.set(`${typed.testId}:${typed.run}`, typed.text);
    if (this.deaf) throw new Error('The answer was lost.');
  };
}

let line: Promise<unknown> = Promise.resolve();
/** One at a time over all tabs, as the browser's locks are. */
const alone = (_name: string, work: () => Promise<void>): Promise<void> => {
  const turn = line.then(work);
  line = turn.catch(() => undefined);
  return turn;
};

let number = 0;
let open: TypedScores[] = [];
let stores: UnsentStore[] = [];
const storeOf = async (person: string) => {
  const store = await UnsentStore.open({ shelf: 'a', person }, 'sheet-tests');
  stores.push(store);
  return store;
};
const tab = async (ledger: Ledger, person: string, retryMs = 1_000_000) => {
  const scores = new TypedScores(await storeOf(person), 7, { send: ledger.send, alone, retryMs });
  open.push(scores);
  return scores;
};
afterEach(() => {
  closeAll();
});
function closeAll() {
  open.forEach((scores) => scores.close());
  stores.forEach((store) => store.close());
  open = [];
  stores = [];
}

test('the first key is kept, and a reload finds it', async () => {
  const ledger = new Ledger();
  const name = `sheet-${number++}`;
  const before = await tab(ledger, name);
  before.typing(1, 1, '4');
  before.typing(1, 1, '41');
  await before.settle();
  expect(ledger.stored.get('1:1'), 'settling enters what stands in the field').toBe('41');

  before.typing(1, 2, '42');
  await expect.poll(async () => (await tab(ledger, name)).at(1, 2)?.text).toBe('42');
  expect(ledger.stored.has('1:2'), 'what is only typed is not stored unasked').toBe(false);
});

test('an emptied field is nothing typed', async () => {
  const scores = await tab(new Ledger(), `sheet-${number++}`);
  scores.typing(1, 1, '4');
  scores.typing(1, 1, '');
  expect(scores.snapshot()).toEqual([]);
  expect(await scores.settle()).toEqual({ waiting: [], refused: [] });
});

test('without the server it waits, says so, and goes on where it was', async () => {
  const ledger = new Ledger();
  ledger.reachable = false;
  const scores = await tab(ledger, `sheet-${number++}`);
  scores.enter(1, 1, '12');
  scores.enter(1, 2, '13');
  expect((await scores.settle()).waiting.map((t) => t.text)).toEqual(['12', '13']);
  expect(scores.trouble).toBe('The server cannot be reached.');
  ledger.reachable = true;
  expect(await scores.settle()).toEqual({ waiting: [], refused: [] });
  expect(scores.trouble).toBeNull();
  expect([...ledger.stored]).toEqual([
    ['1:1', '12'],
    ['1:2', '13'],
  ]);
});

test('a refused score stays with its reason, holds up no other, and can be typed anew', async () => {
  const ledger = new Ledger();
  const scores = await tab(ledger, `sheet-${number++}`);
  scores.enter(1, 1, 'nonsense');
  scores.enter(1, 2, '13');
  const { refused } = await scores.settle();
  expect(refused.map((t) => [t.run, t.text, t.why])).toEqual([[1, 'nonsense', '"nonsense" is no score.']]);
  expect(ledger.stored.get('1:2')).toBe('13');
  scores.enter(1, 1, '12');
  expect(await scores.settle()).toEqual({ waiting: [], refused: [] });
  expect(ledger.stored.get('1:1')).toBe('12');
});

test('what is typed over a score that is on its way is not taken for confirmed', async () => {
  const ledger = new Ledger();
  const scores = await tab(ledger, `sheet-${number++}`);
  scores.enter(1, 1, '12');
  scores.typing(1, 1, '99');
  await scores.settle();
  expect(ledger.stored.get('1:1')).toBe('99');
});

test('leaving the sheet goes on sending, and ends once everything entered is stored', async () => {
  const ledger = new Ledger();
  ledger.reachable = false;
  const name = `sheet-${number++}`;
  const scores = await tab(ledger, name, 5);
  scores.enter(1, 1, '41');
  scores.leave();
  await expect.poll(() => scores.trouble).toContain('cannot be reached');
  expect(unsentSessions(await storeOf(name)), 'a later visit finds it, too').toEqual([7]);
  ledger.reachable = true;
  await expect.poll(() => ledger.stored.get('1:1')).toBe('41');
  await scores.settle();
  expect(scores.stay(), 'it has ended').toBe(false);
  expect(unsentSessions(await storeOf(name))).toEqual([]);
});

test('what waits is sent for nobody else, and not to another shelf at the address', async () => {
  const mine = `sheet-${number++} wren`;
  const away = new Ledger();
  away.reachable = false;
  const scores = await tab(away, mine);
  scores.enter(1, 1, '4711');
  await expect.poll(() => scores.trouble).toContain('cannot be reached');
  scores.close();
  const other = new Ledger();
  const theirs = `sheet-${number++} reed`;
  const visited = await tab(other, theirs);
  await visited.settle();
  expect(visited.at(1, 1)).toBeUndefined();
  expect(unsentSessions(await storeOf(theirs))).toEqual([]);
  expect(other.stored.size).toBe(0);
  const back = new Ledger();
  const again = await tab(back, mine);
  await again.settle();
  expect(back.stored.get('1:1'), 'it waited for its owner').toBe('4711');
});

test('who comes back before it has ended finds it going on', async () => {
  const ledger = new Ledger();
  ledger.reachable = false;
  const scores = await tab(ledger, `sheet-${number++}`);
  scores.enter(1, 1, '41');
  scores.leave();
  expect(scores.stay()).toBe(true);
  ledger.reachable = true;
  await scores.settle();
  expect(scores.stay(), 'somebody still looks at it').toBe(true);
});

/** Numbers from a seed (mulberry32), so that a sequence that fails can be run again. */
function seeded(seed: number) {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

test('200 random sequences of typing, entering, reloading, losing the net and two tabs lose nothing', async () => {
  for (let seed = 1; seed <= 200; seed++) {
    const random = seeded(seed);
    const ledger = new Ledger();
    const name = `random-${seed}`;
    const tabs = [await tab(ledger, name), await tab(ledger, name)];
    const expected = new Map<string, string>();
    for (let step = 0; step < 12; step++) {
      const which = random() < 0.5 ? 0 : 1;
      const scores = tabs[which]!;
      const testId = 1 + Math.floor(random() * 2);
      // Each tab has places of its own: of two people at one place the later one counts, and both orders are right.
      const run = 1 + which + 2 * Math.floor(random() * 2);
      const text = String(100 + Math.floor(random() * 900));
      const what = random();
      if (what < 0.35) {
        scores.typing(testId, run, text.slice(0, 2));
        scores.typing(testId, run, text);
        expected.set(`${testId}:${run}`, text);
      } else if (what < 0.65) {
        scores.enter(testId, run, text);
        expected.set(`${testId}:${run}`, text);
      } else if (what < 0.75) ledger.reachable = !ledger.reachable;
      else if (what < 0.82) ledger.deaf = !ledger.deaf;
      else if (what < 0.92) {
        // A reload: the page goes without a word, and what was written until then is what there is.
        scores.close();
        stores[which]!.close();
        tabs[which] = await tab(ledger, name);
        stores[which] = stores.pop()!;
      } else await scores.settle();
    }
    ledger.reachable = true;
    ledger.deaf = false;
    for (const scores of tabs) expect((await scores.settle()).waiting, `seed ${seed}`).toEqual([]);
    for (const scores of tabs) await scores.settle();
    expect(Object.fromEntries([...ledger.stored].sort()), `seed ${seed}`).toEqual(
      Object.fromEntries([...expected].sort()),
    );
    closeAll();
  }
});

test('where the browser keeps nothing, what is typed stays on the page, is said to be unkept, and is sent', async () => {
  const ledger = new Ledger();
  const none = vi.spyOn(indexedDB, 'open').mockImplementation(() => {
    throw new DOMException('no storage', 'SecurityError');
  });
  const noJournal = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('no storage', 'SecurityError');
  });
  try {
    const scores = await tab(ledger, `sheet-${number++}`);
    scores.typing(1, 1, '41');
    await expect.poll(() => scores.trouble).toContain('keeps nothing');
    ledger.reachable = false;
    scores.enter(1, 2, 'no');
    expect((await scores.settle()).waiting.map((t) => t.text)).toContain('41');
    ledger.reachable = true;
    const left = await scores.settle();
    expect(left.waiting).toEqual([]);
    expect(left.refused.map((t) => t.text)).toEqual(['no']);
    expect([...ledger.stored]).toEqual([['1:1', '41']]);
  } finally {
    none.mockRestore();
    noJournal.mockRestore();
  }
});

test('a store that fills up in the middle loses nothing that was typed', async () => {
  const ledger = new Ledger();
  const scores = await tab(ledger, `sheet-${number++}`);
  scores.typing(1, 1, '41');
  await expect.poll(() => scores.at(1, 1)?.text).toBe('41');
  const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  try {
    scores.typing(1, 2, '42');
    await scores.settle();
    expect(Object.fromEntries(ledger.stored)).toEqual({ '1:1': '41', '1:2': '42' });
  } finally {
    full.mockRestore();
  }
});
