import 'fake-indexeddb/auto';
import { expect, test } from 'vitest';
import { Refused, Unreachable, type DeviceApi } from './api.ts';
import { joinBench } from './join-bench.ts';
import { Outbox } from './outbox.ts';

/** Lets in whoever comes first with the code, and again whoever comes with the same secret, as the server does. */
class Bench {
  joinedWith: string | null = null;
  seats = 0;
  join: DeviceApi['join'] = async (_code, _device, secret) => {
    if (this.joinedWith !== null && this.joinedWith !== secret)
      return Promise.reject(new Refused(409, 'code-used', 'This code was used already.'));
    if (this.joinedWith === null) this.seats++;
    this.joinedWith = secret;
    return { token: `token of ${secret}`, shelf: 'home' };
  };
}

class Killed extends Error {}

/** Ends the device before its step number `at`, or right after it. */
function killedAt<T extends object>(whole: T, step: { now: number }, at: number, after: boolean): T {
  return new Proxy(whole, {
    get(of, name) {
      const method: unknown = Reflect.get(of, name);
      if (typeof method !== 'function') return method;
      return async (...words: unknown[]) => {
        const mine = step.now++;
        if (mine === at && !after) throw new Killed();
        const answer: unknown = await Reflect.apply(method, of, words);
        if (mine === at) throw new Killed();
        return answer;
      };
    },
  });
}

test.each([0, 1, 2].flatMap((at) => [false, true].map((after) => [at, after ? 'after' : 'before'] as const)))(
  'a device that is killed at step %i, %s it, gets the same seat when it asks again',
  async (at, when) => {
    const name = `join-${at}-${when}`;
    const bench = new Bench();
    const step = { now: 0 };
    const outbox = await Outbox.open(name);
    await expect(
      joinBench(
        killedAt(bench, step, at, when === 'after'),
        killedAt(outbox, step, at, when === 'after'),
        'TEAL-42-FEN',
        'a phone',
      ),
    ).rejects.toThrow(Killed);
    const reopened = await Outbox.open(name);
    if ((await reopened.seat()) === null) {
      expect(await reopened.joining()).toEqual(
        at === 0 && when === 'before' ? null : expect.objectContaining({ code: 'TEAL-42-FEN' }),
      );
      await joinBench(bench, reopened, 'teal 42 fen', 'a phone');
    }
    expect(bench.seats).toBe(1);
    expect(await reopened.seat()).toEqual({ token: `token of ${bench.joinedWith}`, shelf: 'home' });
    expect(await reopened.joining(), 'a seat that is kept needs no secret any more').toBeNull();
  },
);

test('a lost answer keeps the secret, a refusal does not, and another code has its own', async () => {
  const outbox = await Outbox.open('join-refused');
  const say = (error: Error) => ({ join: () => Promise.reject(error) });
  await expect(joinBench(say(new Unreachable('away')), outbox, 'TEAL-42-FEN', '')).rejects.toThrow(Unreachable);
  const { secret } = (await outbox.joining())!;
  expect(secret).toMatch(/^[A-Za-z0-9_-]{43}$/);
  await expect(joinBench(say(new Refused(429, 'slow', 'Wait.')), outbox, 'TEAL-42-FEN', '')).rejects.toThrow(Refused);
  expect((await outbox.joining())!.secret).toBe(secret);
  await expect(joinBench(say(new Unreachable('away')), outbox, 'MOSS-23-TARN', '')).rejects.toThrow(Unreachable);
  expect((await outbox.joining())!.secret).not.toBe(secret);
  await expect(joinBench(say(new Refused(409, 'code-used', 'no')), outbox, 'MOSS-23-TARN', '')).rejects.toThrow(
    Refused,
  );
  expect(await outbox.joining()).toBeNull();
});
