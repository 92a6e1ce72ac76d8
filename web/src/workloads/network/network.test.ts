import { afterEach, expect, test, vi } from 'vitest';
import type { RunOptions } from '../types.ts';
import { networkWorkload } from './index.ts';
import { jitter, mbit, nearLimit, percentile, together } from './numbers.ts';
import { inTurn } from './turn.ts';
import { DISTANCES, held, STEPS, walk } from './walk.ts';

afterEach(() => vi.useRealTimers());

test('percentiles and jitter of small examples', () => {
  const times = Array.from({ length: 100 }, (_, i) => 100 - i);
  expect(percentile(times, 95)).toBe(95);
  expect(percentile(times, 99)).toBe(99);
  expect(percentile([7], 99)).toBe(7);
  expect(jitter([10, 12, 11, 15])).toBeCloseTo((2 + 1 + 4) / 3, 12);
  expect(() => jitter([1])).toThrow('two');
  expect(() => percentile([], 50)).toThrow('one');
});

test('one megabyte in one second is eight megabits in that second', () => {
  expect(mbit(1e6, 1000)).toBeCloseTo(8, 12);
});

test('what streams brought is added step by step inside the window alone', () => {
  const a = { firstMs: 1000, stepMs: 100, counts: [10, 20, 30, 40] };
  const b = { firstMs: 1150, stepMs: 100, counts: [1, 2, 3] };
  expect(together([a, b], 1100, 1400, 100)).toEqual([20 + 1, 30 + 2, 40 + 3]);
  expect(together([b, a], 1100, 1400, 100), 'whichever stream comes first').toEqual(together([a, b], 1100, 1400, 100));
  expect(together([a], 1100, 1050, 100)).toEqual([]);
});

test('a run near what the server can give says so with both numbers', () => {
  expect(nearLimit(799, { limitMbit: 1000 })).toBeUndefined();
  expect(nearLimit(941, { limitMbit: 1000, limitBy: 'its network card is linked at that' })).toBe('Near what this server can give: 941 of 1000 Mbit/s (its network card is linked at that).');
  expect(nearLimit(941, {})).toBeUndefined();
});

test('a step holds where every span has enough, not where the mean has', () => {
  expect(held(new Array<number>(300).fill(10))).toBe(true);
  const broken = new Array<number>(300).fill(100);
  broken.fill(1, 50, 100);
  expect(held(broken)).toBe(false);
  // A short break inside a span is made up for.
  const short = new Array<number>(300).fill(100);
  short.fill(0, 10, 20);
  expect(held(short)).toBe(true);
  expect(held([])).toBe(false);
});

/** A house in which so many metres hold. */
const house = (reach: number) => (metres: number) => Promise.resolve({ samples: new Array<number>(60).fill(metres <= reach ? 50 / metres + 10 : 3), rate: metres <= reach ? 50 / metres + 10 : 3, timedMs: 30_000 });
const goes = (last: number) => ({ title }: { title: string }) => Promise.resolve({ button: Number(/\d+/.exec(title)![0]) > last ? 'no-farther' : 'there', fields: {} });

test('the score of a walk is the place of the last step that held', async () => {
  const far = await walk(goes(99), house(7));
  expect(STEPS[far.rate - 1]).toBe('7 m');
  expect(far.note).toContain('10 m did not hold');
  expect(far.more![0]!.samples!.filter((_, i) => i % 2 === 0)).toEqual([1, 3, 5, 7, 10]);
  const wall = await walk(goes(5), house(30));
  expect(STEPS[wall.rate - 1]).toBe('5 m');
  expect(wall.note).toContain('nobody could go to 7 m');
  const all = await walk(goes(99), house(30));
  expect(STEPS[all.rate - 1]).toBe('30 m');
  const none = await walk(goes(99), house(0));
  expect([STEPS[none.rate - 1], none.more]).toEqual(['none', undefined]);
  expect(STEPS).toHaveLength(DISTANCES.length + 1);
});

test('out of reach ends a walk, but not at its first step', async () => {
  const lost = (from: number) => (metres: number) => (metres >= from ? Promise.reject(new TypeError('Failed to fetch')) : house(30)(metres));
  const far = await walk(goes(99), lost(10));
  expect([STEPS[far.rate - 1], far.note]).toEqual(['7 m', 'It ended where the connection was lost at 10 m.']);
  await expect(walk(goes(99), lost(1))).rejects.toThrow('Failed to fetch');
});

function options(bench: RunOptions['bench'], more: Partial<RunOptions> = {}): RunOptions {
  return { timedMs: 200, clockResolutionMs: 0.1, signal: new AbortController().signal, host: undefined as unknown as HTMLElement, bench, ...more };
}
const answer = (status: number, body: unknown) => new Response(status === 204 ? null : JSON.stringify(body), { status });

test('a device waits for its turn outside of its own time, and gives the turn back whatever happens', async () => {
  vi.useFakeTimers();
  const said: string[] = [];
  let before = 2;
  const bench: RunOptions['bench'] = async (path, init) => {
    said.push(`${init?.method} ${path}`);
    if (init?.method === 'DELETE') return answer(204, null);
    return answer(200, before > 0 ? { before: before--, here: false } : { before: 0, here: false, ticket: 't' });
  };
  const given: number[] = [];
  const loud = vi.fn();
  const told: string[] = [];
  const ask: RunOptions['ask'] = ({ words, buttons }, signal) => {
    expect(buttons).toEqual([]);
    told.push(words[0]!);
    return new Promise((_, reject) => signal!.addEventListener('abort', () => reject(signal!.reason as Error)));
  };
  const run = inTurn(options(bench, { more: (ms) => given.push(ms), quiet: () => loud, ask }), 5_000, () => Promise.reject(new Error('cable')));
  const failed = expect(run).rejects.toThrow('cable');
  await vi.advanceTimersByTimeAsync(3_000);
  await failed;
  expect(said).toEqual(['POST network/turn', 'POST network/turn', 'POST network/turn', 'DELETE network/turn']);
  expect(given).toEqual([60_000, 60_000, 5_000]);
  expect(loud).toHaveBeenCalledOnce();
  expect(told.map((words) => words.split(':')[0])).toEqual(['2 other devices are before this one', 'Another device is before this one']);
});

test('a stop ends the waiting, and a refusal is told in the words of the server', async () => {
  const stop = new AbortController();
  const waits = inTurn(options(async () => answer(200, { before: 1, here: false }), { signal: stop.signal }), 1, () => Promise.resolve(1));
  stop.abort(new Error('stopped'));
  await expect(waits).rejects.toThrow('stopped');
  await expect(inTurn(options(async () => answer(401, { detail: 'This device is not at the bench.' })), 1, () => Promise.resolve(1))).rejects.toThrow('not at the bench');
});

test('without a bench, or somebody to ask, a test says what is missing', async () => {
  await expect(networkWorkload('network-latency')!.run(options(undefined))).rejects.toThrow('at a bench');
  expect(() => networkWorkload('network-walk')!.run(options(undefined))).toThrow('Nobody');
  expect(networkWorkload('network-sing')).toBeNull();
  expect(networkWorkload('network-toString')).toBeNull();
});
