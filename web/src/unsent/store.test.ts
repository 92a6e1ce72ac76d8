// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from 'vitest';
import { UnsentStore, type Owner } from './store.ts';

const WREN: Owner = { shelf: 'a', person: 'wren' };
let name = '';
let made = 0;
beforeEach(() => {
  name = `unsent-${made++}`;
  localStorage.clear();
});
const open = (owner = WREN) => UnsentStore.open(owner, name);
const bodies = (store: UnsentStore, about = '') => store.all('piece', about).map((u) => u.body);

test('what is typed is there for who comes back, and the last key is what stays', async () => {
  const first = await open();
  first.put('piece', '1.7', 'a');
  first.put('piece', '1.7', 'ab');
  first.put('piece', '2.9', 'other');
  await first.settled();
  first.close();
  const again = await open();
  expect(bodies(again)).toEqual(['ab', 'other']);
  expect(bodies(again, '1.')).toEqual(['ab']);
  again.remove('piece', '1.7');
  expect(bodies(again)).toEqual(['other']);
});

test('another shelf at the same address and another person see nothing of it', async () => {
  const mine = await open();
  mine.put('piece', '1.7', 'mine');
  await mine.settled();
  expect(bodies(await open({ shelf: 'b', person: 'wren' }))).toEqual([]);
  expect(bodies(await open({ shelf: 'a', person: 'reed' }))).toEqual([]);
  expect(bodies(await open({ shelf: 'a', person: 'wre' }))).toEqual([]);
  expect(bodies(await open())).toEqual(['mine']);
});

test('a key that was pressed in the moment the page closed is in the journal, and comes back', async () => {
  const closing = await open();
  closing.put('piece', '1.7', 'before');
  await closing.settled();
  closing.put('piece', '1.7', 'before and the last key');
  // The page is gone: nothing that was still to be written happens.
  const journal = { ...localStorage } as Record<string, string>;
  await closing.settled();
  closing.put('piece', '1.7', 'before');
  await closing.settled();
  for (const [key, value] of Object.entries(journal)) {
    const kept = JSON.parse(value) as { order: number };
    localStorage.setItem(key, JSON.stringify({ ...kept, order: kept.order + 1e9 }));
  }
  expect(bodies(await open())).toEqual(['before and the last key']);
  expect(localStorage.length, 'the database has it now').toBe(0);
});

test('an older journal does not undo what the database has, and a broken one is no harm', async () => {
  const store = await open();
  store.put('piece', '1.7', 'old');
  const old = Object.entries<string>({ ...localStorage })[0]!;
  store.put('piece', '1.7', 'new');
  await store.settled();
  localStorage.setItem(old[0], old[1]);
  localStorage.setItem('yarrowmark.unsent.a.wren.piece.3', '{"shelf":"a","pers');
  expect(bodies(await open())).toEqual(['new']);
});
