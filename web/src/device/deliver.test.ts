import { expect, test } from 'vitest';
import { Refused, Unreachable, type RunBody } from './api.ts';
import { deliverKept } from './deliver.ts';
import type { Kept } from './outbox.ts';

function box(keys: string[]) {
  const kept = new Map(keys.map((key) => [key, { key, body: {} as RunBody, finishedAt: 100 } satisfies Kept]));
  return {
    waiting: async () => [...kept.values()],
    confirmed: async (key: string) => void kept.delete(key),
    keys: () => [...kept.keys()],
  };
}

test('delivers in order with how long ago, and forgets what is confirmed', async () => {
  const sent: [string, number][] = [];
  const outbox = box(['a', 'b']);
  await deliverKept({ deliver: async (key, age) => (sent.push([key, age]), { runId: 1 }) }, outbox, () => 350);
  expect(sent).toEqual([
    ['a', 250],
    ['b', 250],
  ]);
  expect(outbox.keys()).toEqual([]);
});

test('keeps everything from where the server stopped answering', async () => {
  const outbox = box(['a', 'b', 'c']);
  const api = {
    deliver: async (key: string) => {
      if (key === 'b') throw new Unreachable('gone');
      return { runId: 1 };
    },
  };
  await expect(deliverKept(api, outbox, () => 0)).rejects.toThrow(Unreachable);
  expect(outbox.keys()).toEqual(['b', 'c']);
});

test('one refused run does not hold up the others and is told', async () => {
  const outbox = box(['a', 'b']);
  const api = {
    deliver: async (key: string) => {
      if (key === 'a') throw new Refused(409, 'session-over', 'This session ended.');
      return { runId: 1 };
    },
  };
  expect(await deliverKept(api, outbox, () => 0)).toEqual([{ message: 'This session ended.' }]);
  expect(outbox.keys()).toEqual([]);
});

test('being told to wait is no refusal', async () => {
  const outbox = box(['a']);
  await expect(
    deliverKept(
      {
        deliver: async () => {
          throw new Refused(429, 'too-many-tries', 'wait');
        },
      },
      outbox,
      () => 0,
    ),
  ).rejects.toThrow('wait');
  expect(outbox.keys()).toEqual(['a']);
});
