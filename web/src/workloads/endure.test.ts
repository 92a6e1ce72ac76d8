import { expect, test } from 'vitest';
import { endure } from './endure.ts';

/** A device whose rounds take longer from a moment on. */
function device(msPerRound: (now: number) => number) {
  let now = 0;
  return { now: () => now, work: (rounds: number) => void (now += rounds * msPerRound(now)) };
}

const pairs = (samples: readonly number[]) => Array.from({ length: samples.length / 2 }, (_, i) => ({ x: samples[2 * i]!, y: samples[2 * i + 1]! }));

test('a device that slows down after a minute shows it in the loops from then on', async () => {
  const d = device((now) => (now < 60_000 ? 1 : 2));
  const { samples, rate } = await endure(d.work, 3, { timedMs: 300_000, clockResolutionMs: 0.005, now: d.now });
  const points = pairs(samples);
  // A loop ends with a chunk of work, so each is a little longer than five seconds.
  expect(points.length).toBeGreaterThanOrEqual(57);
  expect(points.length).toBeLessThanOrEqual(60);
  expect(rate).toBeCloseTo(3000, 6);
  expect(points.filter((p) => p.x < 59).every((p) => Math.abs(p.y - 3000) < 1e-6)).toBe(true);
  expect(points.filter((p) => p.x > 66).every((p) => Math.abs(p.y - 1500) < 1e-6)).toBe(true);
  expect(points.every((p, i) => i === 0 || p.x > points[i - 1]!.x)).toBe(true);
});

test('a short one still has loops enough to see a trend', async () => {
  const d = device(() => 0.01);
  expect(pairs((await endure(d.work, 1, { timedMs: 400, clockResolutionMs: 0.005, now: d.now })).samples).length).toBeGreaterThanOrEqual(8);
});

test('one round that takes longer than a loop is a loop', async () => {
  const d = device(() => 9_000);
  const points = pairs((await endure(d.work, 1, { timedMs: 60_000, clockResolutionMs: 1, now: d.now })).samples);
  expect(points.length).toBeGreaterThanOrEqual(8);
  expect(points[0]!.y).toBeCloseTo(1 / 9, 9);
});

test('it stops between two chunks when it is told to', async () => {
  const d = device(() => 10);
  let left = 5;
  const stop = () => {
    if (left-- === 0) throw new Error('stopped');
  };
  await expect(endure(d.work, 1, { timedMs: 60_000, clockResolutionMs: 1, now: d.now, between: stop })).rejects.toThrow('stopped');
});
