import { expect, test } from 'vitest';
import { Refused, Stranger, Unreachable, type RunBody, type Stored } from '../seat/api.ts';
import { deliverKept } from './deliver.ts';
import type { Kept } from '../seat/outbox.ts';

function box(keys: string[]) {
  const kept = new Map<string, Kept>(keys.map((key) => [key, { key, body: {} as RunBody, finishedAt: 100 }]));
  return {
    waiting: async () => [...kept.values()].filter((run) => run.refused === undefined),
    confirmed: async (key: string) => void kept.delete(key),
    refuse: async (key: string, why: string) => void kept.set(key, { ...kept.get(key)!, refused: why }),
    keys: () => [...kept.keys()],
    refused: () => [...kept.values()].filter((run) => run.refused !== undefined).map((run) => [run.key, run.refused]),
  };
}

const has = (key: string): Stored => ({ runId: 1, key, late: false });

test('delivers in order with how long ago, and forgets what is confirmed', async () => {
  const sent: [string, number][] = [];
  const outbox = box(['a', 'b']);
  const became = await deliverKept(
    { deliver: async (key, age) => (sent.push([key, age]), has(key)) },
    outbox,
    () => 350,
  );
  expect(sent).toEqual([
    ['a', 250],
    ['b', 250],
  ]);
  expect(outbox.keys()).toEqual([]);
  expect(became).toEqual({ stored: 2, late: 0, refused: 0 });
});

test('keeps everything from where the server stopped answering', async () => {
  const outbox = box(['a', 'b', 'c']);
  const api = {
    deliver: async (key: string) => {
      if (key === 'b') throw new Unreachable('gone');
      return has(key);
    },
  };
  await expect(deliverKept(api, outbox, () => 0)).rejects.toThrow(Unreachable);
  expect(outbox.keys()).toEqual(['b', 'c']);
});

test('one refused run holds up no other, stays, and says why', async () => {
  const outbox = box(['a', 'b']);
  const api = {
    deliver: async (key: string) => {
      if (key === 'a') throw new Refused(422, 'invalid-reading', 'A reading lies between 1e-30 and 1e30.');
      return has(key);
    },
  };
  expect(await deliverKept(api, outbox, () => 0)).toEqual({ stored: 1, late: 0, refused: 1 });
  expect(outbox.refused()).toEqual([['a', 'A reading lies between 1e-30 and 1e30.']]);
  expect(outbox.keys()).toEqual(['a']);
});

test.each([408, 421, 425, 429])('%s is no verdict on the run', async (status) => {
  const outbox = box(['a']);
  const api = {
    deliver: async () => {
      throw new Refused(status, 'later', 'wait');
    },
  };
  await expect(deliverKept(api, outbox, () => 0)).rejects.toThrow('wait');
  expect(outbox.keys()).toEqual(['a']);
  expect(outbox.refused()).toEqual([]);
});

test.each<[string, unknown]>([
  ['nothing', {}],
  ['another key', has('b')],
  ['a page of somebody else', 'hello'],
])('an answer that confirms %s confirms no run', async (_what, answer) => {
  const outbox = box(['a']);
  await expect(deliverKept({ deliver: async () => answer as Stored }, outbox, () => 0)).rejects.toThrow(Unreachable);
  expect(outbox.keys()).toEqual(['a']);
});

test('another shelf at the same address takes nothing', async () => {
  const outbox = box(['a', 'b']);
  const api = {
    deliver: async () => {
      throw new Stranger('Another program answers at this address.');
    },
  };
  await expect(deliverKept(api, outbox, () => 0)).rejects.toThrow(Unreachable);
  expect(outbox.keys()).toEqual(['a', 'b']);
});

test('what is kept at the bench after the end has left this device, and is told apart', async () => {
  const outbox = box(['a']);
  const api = { deliver: async (key: string) => ({ key, late: true }) };
  expect(await deliverKept(api, outbox, () => 0)).toEqual({ stored: 0, late: 1, refused: 0 });
  expect(outbox.keys()).toEqual([]);
});
