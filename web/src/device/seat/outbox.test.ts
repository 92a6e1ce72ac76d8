import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from 'vitest';
import type { RunBody } from './api.ts';
import { Outbox } from './outbox.ts';

let outbox: Outbox;
let number = 0;
beforeEach(async () => {
  outbox = await Outbox.open(`outbox-${number++}`);
});

const run = (key: string) => ({ key, body: { testId: 1 } as RunBody, finishedAt: 5 });
const keys = async (of: Promise<{ key: string }[]>) => (await of).map((r) => r.key);

test('what is refused stays, out of the way of the others, until somebody wants it sent again', async () => {
  await outbox.takeSeat({ token: 't', shelf: 's' });
  await outbox.keep(run('b'));
  await outbox.keep(run('a'));
  await outbox.refuse('b', 'too small');
  expect(await keys(outbox.waiting())).toEqual(['a']);
  expect((await outbox.refused()).map((r) => [r.key, r.refused])).toEqual([['b', 'too small']]);
  await outbox.again('b');
  expect(await keys(outbox.waiting()), 'in the order they were made').toEqual(['b', 'a']);
  expect(await keys(outbox.refused())).toEqual([]);
});

test('a new seat drops nothing of the one before, and keeps whose it was', async () => {
  await outbox.takeSeat({ token: 'first', shelf: 'home' });
  await outbox.keep(run('a'));
  await outbox.begin({ testId: 1, runNumber: 2, attempt: 1, at: 9 });
  await outbox.takeSeat({ token: 'second', shelf: 'home' });
  expect(await outbox.seat()).toEqual({ token: 'second', shelf: 'home' });
  expect(await outbox.begun(), 'nothing is going on in the new session').toBeNull();
  expect(await keys(outbox.waiting())).toEqual([]);
  expect((await outbox.refused()).map((r) => [r.key, r.seat])).toEqual([['a', { token: 'first', shelf: 'home' }]]);
  await outbox.keep(run('c'));
  await outbox.leave();
  expect((await outbox.refused()).map((r) => [r.key, r.seat?.token])).toEqual([
    ['a', 'first'],
    ['c', 'second'],
  ]);
});

test('what is confirmed or given up is gone', async () => {
  await outbox.takeSeat({ token: 't', shelf: null });
  expect(await outbox.seat()).toEqual({ token: 't', shelf: null });
  await outbox.keep(run('a'));
  await outbox.keep(run('b'));
  await outbox.confirmed('a');
  await outbox.refuse('b', 'no');
  await outbox.giveUp('b');
  await outbox.refuse('nobody', 'no');
  expect([...(await outbox.waiting()), ...(await outbox.refused())]).toEqual([]);
});

test('what a device was is known again at the same lab, after its session, until its owner forgets it', async () => {
  const known = {
    shelf: 'home',
    maker: 'Fellgate',
    name: 'Tarn 15',
    unit: 'Unit 2',
    typed: { 'memory.size': '16 GB' },
  };
  await outbox.takeSeat({ token: 't', shelf: 'home' });
  await outbox.remember(known);
  await outbox.leave();
  expect(await outbox.seat()).toBeNull();
  expect(await outbox.known('home')).toEqual(known);
  expect(await outbox.known('elsewhere'), 'another lab may call it otherwise').toBeNull();
  await outbox.forget();
  expect(await outbox.known('home')).toBeNull();
});

test('notes of a long run outlive its being cut off, and end with it', async () => {
  const body = (state: RunBody['state']) => ({ ...run(state), body: { testId: 4, state } as RunBody });
  await outbox.note(4, 1, { points: [0, 100] });
  expect(await outbox.notes(4, 1)).toEqual({ points: [0, 100] });
  expect(await outbox.notes(4, 2), 'another run has its own').toBeNull();
  expect(await outbox.notes(5, 1)).toBeNull();
  await outbox.keep(body('STOPPED'));
  expect(await outbox.notes(4, 1)).not.toBeNull();
  await outbox.keep(body('OK'));
  expect(await outbox.notes(4, 1)).toBeNull();
});

test('how often a page went away is counted for each run by itself', async () => {
  expect([await outbox.goneIn(4, 1), await outbox.goneIn(4, 1), await outbox.goneIn(4, 1)]).toEqual([1, 2, 3]);
  expect(await outbox.goneIn(4, 2)).toBe(1);
  expect(await outbox.goneIn(4, 1), 'only the run of now is remembered').toBe(1);
});
