import { describe, expect, test } from 'vitest';
import { isWarm, measure, median } from './measure.ts';

/** A machine whose clock moves only while it works. */
function machine(msPerRound: (n: number) => number, step = 0) {
  let time = 0;
  let total = 0;
  return {
    now: () => (step > 0 ? Math.floor(time / step) * step : time),
    work: (rounds: number) => {
      for (let i = 0; i < rounds; i++) time += msPerRound(total++);
    },
    rounds: () => total,
  };
}

describe('measure', () => {
  test('gives the rate of a steady machine exactly', async () => {
    const m = machine(() => 2);
    const result = await measure(m.work, 1, { timedMs: 3000, clockResolutionMs: 0.005, now: m.now });
    expect(result.rate).toBeCloseTo(500, 6);
    expect(result.timedMs).toBeGreaterThanOrEqual(3000);
    expect(result.samples.length).toBeGreaterThanOrEqual(5);
  });

  test('makes samples of at least a hundred steps of a coarse clock', async () => {
    const m = machine(() => 0.01, 1);
    const result = await measure(m.work, 1, { timedMs: 200, clockResolutionMs: 1, now: m.now });
    expect(result.rate).toBeGreaterThan(98_000);
    expect(result.rate).toBeLessThan(102_000);
    expect(result.resolution / result.rate).toBeLessThanOrEqual(0.01);
    expect(result.timedMs / result.samples.length).toBeGreaterThanOrEqual(100);
  });

  test('does not count the slow start', async () => {
    const m = machine((n) => (n < 500 ? 10 : 1));
    const result = await measure(m.work, 1, { timedMs: 6000, clockResolutionMs: 0.005, now: m.now });
    expect(result.rate).toBeCloseTo(1000, 0);
  });

  test('a few disturbed samples do not move the reading', async () => {
    let calls = 0;
    const m = machine(() => 1);
    const result = await measure(
      (rounds) => {
        m.work(rounds);
        if (++calls % 5 === 0) m.work(rounds);
      },
      1,
      { timedMs: 3000, clockResolutionMs: 0.005, now: () => m.now() },
    );
    expect(result.rate).toBeCloseTo(1000, 6);
  });

  test('counts what a round is worth', async () => {
    const m = machine(() => 4);
    const result = await measure(m.work, 60, { timedMs: 500, clockResolutionMs: 0, now: m.now });
    expect(result.rate).toBeCloseTo((60 * 1000) / 4, 6);
    expect(result.resolution).toBe(0);
  });

  test('keeps the time of each round where that is asked for, of a few on a coarse clock', async () => {
    const uneven = (n: number) => (n % 10 === 0 ? 30 : 4);
    const fine = machine(uneven);
    const kept = await measure(fine.work, 1, { timedMs: 3000, clockResolutionMs: 0.005, now: fine.now, each: true });
    expect(new Set(kept.samples.map((s) => Math.round(1000 / s)))).toEqual(new Set([4, 30]));
    expect(kept.rate).toBeCloseTo(250, 6);
    const coarse = machine(() => 4, 1);
    const few = await measure(coarse.work, 1, { timedMs: 3000, clockResolutionMs: 1, now: coarse.now, each: true });
    expect(few.timedMs / few.samples.length).toBeGreaterThanOrEqual(100);
    const quick = machine(() => 0.1);
    const many = await measure(quick.work, 1, { timedMs: 30_000, clockResolutionMs: 0, now: quick.now, each: true });
    expect(many.samples.length).toBeLessThanOrEqual(5_000);
  });

  test('stops when asked to between samples', async () => {
    const m = machine(() => 1);
    let left = 3;
    const run = measure(m.work, 1, {
      timedMs: 3000,
      clockResolutionMs: 0.005,
      now: m.now,
      between: () => {
        if (left-- === 0) throw new Error('stop');
      },
    });
    await expect(run).rejects.toThrow('stop');
  });

  test('refuses times that make no sense', async () => {
    await expect(measure(() => {}, 1, { timedMs: Number.NaN, clockResolutionMs: 0, now: () => 0 })).rejects.toThrow('timedMs');
  });
});

test('warm is what no longer becomes faster', () => {
  expect(isWarm([10, 5])).toBe(false);
  expect(isWarm([10, 5, 5.05, 5.1])).toBe(true);
  // Becomes faster still, if slowly.
  expect(isWarm([10, 9.7, 9.4, 9.1, 8.8, 8.5, 8.2, 7.9, 7.6])).toBe(false);
  // Another program takes half of the machine now and then: no three agree, and no more is to be gained.
  expect(isWarm([10, 5, 9, 5.2, 8, 5.1, 9.5])).toBe(false);
  expect(isWarm([10, 5, 9, 5.2, 8, 5.1, 9.5, 5.3])).toBe(true);
});

test('median', () => {
  const values = [3, 1, 2];
  expect(median(values)).toBe(2);
  expect(values).toEqual([3, 1, 2]);
  expect(median([4, 1])).toBe(2.5);
  expect(() => median([])).toThrow('at least one');
});
