import { describe, expect, test } from 'vitest';
import { WrongAnswer, type Measurement } from '../../workloads/types.ts';
import type { DeviceSeat, DeviceTest } from '../seat/api.ts';
import { Interrupted, longestRunMs, remaining, runRound, timeFor, type Finished, type Surroundings } from './round.ts';

const tests: DeviceTest[] = ['weir', 'tile', 'list'].map((key, i) => ({
  id: i + 1,
  key,
  name: key,
  summary: '',
  metric: 'rate',
  runs: 2,
  pauseMs: 5,
  byHand: false,
}));
const seat = (done: DeviceSeat['done'] = []): DeviceSeat =>
  ({
    seatId: 1,
    planName: 'First round',
    runs: 2,
    timedMs: 100,
    pauseMs: 5,
    tests,
    done,
    phase: 'RUNNING',
    command: 'GO',
    commandRevision: 0,
  }) as DeviceSeat;

const measured: Measurement = { rate: 388, samples: [387, 388, 389], resolution: 0.1, timedMs: 3000 };

/** A page that does what a script says, and writes down what it was told. */
function page(execute: (test: DeviceTest, call: number) => Measurement | Error, more: Partial<Surroundings> = {}) {
  const kept: Finished[] = [];
  const told: string[] = [];
  let calls = 0;
  const around: Surroundings = {
    obstacle: async () => null,
    coolByProbe: async () => {},
    notice: () => () => null,
    hasNotes: async () => false,
    execute: async (t) => {
      const result = execute(t, ++calls);
      if (result instanceof Error) throw result;
      return result;
    },
    begin: async () => {},
    keep: async (run) => void kept.push(run),
    tell: (phase, t, run) => told.push(`${phase} ${t?.key ?? ''} ${run ?? ''}`.trim()),
    shown: async () => {},
    isShown: () => true,
    allowed: async () => {},
    goSaid: async () => {},
    cool: async () => {},
    watch: () => ({ signal: new AbortController().signal, release: () => {}, extend: () => {} }),
    now: () => 0,
    ...more,
  };
  return { around, kept, told };
}

describe('what remains', () => {
  test('finished and failed runs are not repeated, stopped ones are, with the next attempt', () => {
    const left = remaining(
      seat([
        { testId: 1, runNumber: 1, attempt: 1, state: 'OK' },
        { testId: 1, runNumber: 2, attempt: 1, state: 'STOPPED' },
        { testId: 1, runNumber: 2, attempt: 2, state: 'STOPPED' },
        { testId: 2, runNumber: 1, attempt: 1, state: 'FAILED' },
        { testId: 3, runNumber: 1, attempt: 1, state: 'COULD_NOT_RUN' },
      ]),
    );
    expect(left.map((r) => [r.test.key, r.runNumber, r.attempt])).toEqual([
      ['weir', 2, 3],
      ['tile', 2, 1],
    ]);
  });
});

describe('a round', () => {
  test('runs every test as often as planned, with pauses between', async () => {
    const { around, kept, told } = page(() => measured);
    expect(await runRound(seat(), around)).toBe('DONE');
    expect(kept.map((r) => [r.testId, r.runNumber, r.state])).toEqual([
      [1, 1, 'OK'],
      [1, 2, 'OK'],
      [2, 1, 'OK'],
      [2, 2, 'OK'],
      [3, 1, 'OK'],
      [3, 2, 'OK'],
    ]);
    expect(told.filter((t) => t.startsWith('COOLING'))).toHaveLength(5);
    expect(kept[0]!.readings[0]).toEqual({ metric: 'rate', value: 388, resolution: 0.1, samples: [387, 388, 389] });
    expect(kept[0]!.timedMs).toBe(3000);
  });

  const aimed = (done: DeviceSeat['done'] = []): DeviceSeat => ({
    ...seat(done),
    tests: [
      {
        ...tests[0]!,
        runs: 6,
        enough: [
          { runs: 3, spread: 0.01, rounding: 0.01 },
          { runs: 5, spread: 0.05, rounding: 0.01 },
        ],
      },
    ],
  });
  const rates = (...all: number[]) => page((_, call) => ({ ...measured, rate: all[call - 1] ?? 1 }));

  test('goes on until the mean is known, and no longer', async () => {
    const quiet = rates(100, 100.2, 99.9);
    await runRound(aimed(), quiet.around);
    expect(quiet.kept).toHaveLength(3);
    const noisy = rates(100, 104, 98, 101, 99);
    await runRound(aimed(), noisy.around);
    expect(noisy.kept).toHaveLength(5);
    const wild = rates(100, 150, 70, 120, 90, 160);
    await runRound(aimed(), wild.around);
    expect(wild.kept).toHaveLength(6);
  });

  test('after a reload it knows what was measured before', async () => {
    const done = [1, 2].map((runNumber) => ({
      testId: 1,
      runNumber,
      attempt: 1,
      state: 'OK' as const,
      value: 100,
      resolution: 0.1,
    }));
    const { around, kept } = rates(100.1);
    await runRound(aimed(done), around);
    expect(kept).toHaveLength(1);
  });

  test('a run cut off by a hidden page is kept with that reason and run again', async () => {
    const { around, kept } = page((_, call) =>
      call === 2 ? new Interrupted('HIDDEN', 'The page was hidden.') : measured,
    );
    expect(await runRound(seat(), around)).toBe('DONE');
    expect(kept.slice(0, 3).map((r) => [r.runNumber, r.attempt, r.state, r.reason])).toEqual([
      [1, 1, 'OK', undefined],
      [2, 1, 'STOPPED', 'HIDDEN'],
      [2, 2, 'OK', undefined],
    ]);
    expect(kept).toHaveLength(7);
  });

  test('a wrong answer is a failure with that reason, and the round goes on', async () => {
    const { around, kept } = page((t) => (t.key === 'tile' ? new WrongAnswer('off by one') : measured));
    expect(await runRound(seat(), around)).toBe('DONE');
    expect(kept.filter((r) => r.state === 'FAILED').map((r) => r.reason)).toEqual(['WRONG_ANSWER', 'WRONG_ANSWER']);
    expect(kept.filter((r) => r.state === 'OK')).toHaveLength(4);
    expect(kept.filter((r) => r.state === 'FAILED').every((r) => r.readings.length === 0)).toBe(true);
  });

  test('a test that cannot run says so once', async () => {
    const { around, kept } = page(() => measured, {
      obstacle: async (t) =>
        t.key === 'weir' ? { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection.' } : null,
    });
    await runRound(seat(), around);
    expect(kept.filter((r) => r.testId === 1)).toMatchObject([
      { state: 'COULD_NOT_RUN', reason: 'NEEDS_SECURE_CONNECTION', runNumber: 1 },
    ]);
    expect(kept).toHaveLength(5);
  });

  test('a stop ends the round, and the run it cut off is kept', async () => {
    const { around, kept } = page((_, call) =>
      call === 3 ? new Interrupted('STOPPED_BY_REVIEWER', 'The reviewer stopped it.') : measured,
    );
    expect(await runRound(seat(), around)).toBe('STOPPED');
    expect(kept.map((r) => r.state)).toEqual(['OK', 'OK', 'STOPPED']);
  });

  test('a stop between two runs ends the round without another attempt', async () => {
    let asked = 0;
    const { around, kept } = page(() => measured, {
      allowed: async () => {
        if (++asked === 2) throw new Interrupted('STOPPED_BY_REVIEWER', 'stop');
      },
    });
    expect(await runRound(seat(), around)).toBe('STOPPED');
    expect(kept).toHaveLength(1);
  });

  test('waits while the page is hidden and says so', async () => {
    let shown = false;
    const { around, told } = page(() => measured, { isShown: () => shown, shown: async () => void (shown = true) });
    await runRound(seat(), around);
    expect(told.slice(0, 2)).toEqual(['HIDDEN weir 1', 'RUNNING weir 1']);
  });

  test('a run that is stuck is ended as too slow', async () => {
    let limit = 0;
    const { around, kept } = page(() => measured, {
      watch: (limitMs, over) => {
        limit = limitMs;
        return { signal: AbortSignal.abort(over), release: () => {}, extend: () => {} };
      },
      execute: async (t, _run, signal) => {
        if (t.key === 'weir') signal.throwIfAborted();
        return measured;
      },
    });
    expect(await runRound(seat(), around)).toBe('DONE');
    expect(limit).toBeGreaterThan(60_000);
    expect(kept.slice(0, 2).map((r) => r.reason)).toEqual(['TOO_SLOW', 'TOO_SLOW']);
  });

  test('what is cut off for ever does not run for ever', async () => {
    const { around, kept } = page((t) => (t.key === 'weir' ? new Interrupted('RESIZED', 'resized') : measured));
    expect(await runRound(seat(), around)).toBe('DONE');
    expect(kept.filter((r) => r.testId === 1)).toHaveLength(40);
  });

  test('waits once for what the reviewer carries out, and goes on when it is said', async () => {
    let said = 0;
    const { around, kept, told } = page(() => measured, { goSaid: async () => void said++ });
    const mixed = { ...seat(), tests: [tests[0]!, { ...tests[1]!, byHand: true, runs: 3 }, tests[2]!] };
    expect(await runRound(mixed, around)).toBe('DONE');
    expect(said).toBe(1);
    expect(told.filter((t) => t.startsWith('BY_HAND'))).toEqual(['BY_HAND tile 1']);
    expect(new Set(kept.map((r) => r.testId))).toEqual(new Set([1, 3]));
  });

  test('a stop while it waits ends the round', async () => {
    const { around, kept } = page(() => measured, {
      goSaid: async () => {
        throw new Interrupted('STOPPED_BY_REVIEWER', 'stop');
      },
    });
    expect(await runRound({ ...seat(), tests: [{ ...tests[0]!, byHand: true }, tests[1]!] }, around)).toBe('STOPPED');
    expect(kept).toEqual([]);
  });

  test('what was typed by hand already is not waited for', async () => {
    const { around, told } = page(() => measured);
    const done: DeviceSeat['done'] = [1, 2].map((runNumber) => ({ testId: 1, runNumber, attempt: 1, state: 'OK' }));
    await runRound({ ...seat(done), tests: [{ ...tests[0]!, byHand: true }, tests[1]!] }, around);
    expect(told.some((t) => t.startsWith('BY_HAND'))).toBe(false);
  });

  test('a temperature is waited for before each run but the first', async () => {
    const { around, told } = page(() => measured);
    await runRound({ ...seat(), tests: [{ ...tests[0]!, pauseUntil: 38.5 }] }, around);
    expect(told.filter((t) => t.startsWith('COOL_UNTIL'))).toEqual(['COOL_UNTIL weir 2']);
    expect(told.some((t) => t.startsWith('COOLING'))).toBe(false);
  });

  test('the first failure ends a round that says so, and no other', async () => {
    const fails = (t: DeviceTest) => (t.key === 'weir' ? new Error('no') : measured);
    const first = page(fails);
    expect(await runRound({ ...seat(), stopOnFailure: true }, first.around)).toBe('STOPPED');
    expect(first.kept).toHaveLength(1);
    const second = page(fails);
    expect(await runRound(seat(), second.around)).toBe('DONE');
    expect(second.kept).toHaveLength(6);
  });

  test('each test has its own number of runs and time allowed', async () => {
    const limits: number[] = [];
    const { around, kept } = page(() => measured, {
      watch: (limitMs) => {
        limits.push(limitMs);
        return { signal: new AbortController().signal, release: () => {}, extend: () => {} };
      },
    });
    await runRound(
      {
        ...seat(),
        tests: [
          { ...tests[0]!, runs: 1, allowedMs: 7_000 },
          { ...tests[1]!, runs: 3 },
        ],
      },
      around,
    );
    expect(kept.map((r) => r.testId)).toEqual([1, 2, 2, 2]);
    expect(limits).toEqual([7_000, longestRunMs(100), longestRunMs(100), longestRunMs(100)]);
  });

  test('a run is given the time that calibration saw, and ended at once where that is too much', async () => {
    const given: number[] = [];
    const { around, kept } = page(() => measured, {
      now: () => 20_000,
      watch: () => ({
        signal: new AbortController().signal,
        release: () => {},
        extend: (ms) => given.push(ms),
      }),
      execute: async (t, _run, _signal, { takes }) => {
        takes(t.key === 'weir' ? 100_000 : t.key === 'tile' ? 1_000 : 1_800_000);
        return measured;
      },
    });
    await runRound({ ...seat(), tests: tests.map((t) => ({ ...t, runs: 1 })) }, around);
    expect(given, 'half as much again, and never less than it had').toEqual([150_000, longestRunMs(100)]);
    expect(kept.map((r) => r.reason)).toEqual([undefined, undefined, 'TOO_SLOW']);
    expect(kept[2]!.reasonWords).toBe('It would take 30 min here; at most 10 min.');
  });

  test('a run of hours is cut off as often as somebody looks at the device, any other twenty times', async () => {
    const cutOff = (times: number) => (_: DeviceTest, call: number) =>
      call <= times ? new Interrupted('HIDDEN', 'A call came.') : measured;
    const one = { ...seat(), tests: [{ ...tests[0]!, runs: 1 }] };
    const long = page(cutOff(30), { hasNotes: async () => true });
    await runRound(one, long.around);
    expect([long.kept.length, long.kept.at(-1)!.state, long.kept.at(-1)!.attempt]).toEqual([31, 'OK', 31]);
    const short = page(cutOff(30));
    await runRound(one, short.around);
    expect([short.kept.length, short.kept.at(-1)!.state]).toEqual([20, 'STOPPED']);
  });

  test('what a plan allows is never exceeded', () => {
    expect(timeFor(50_000, 10_000, 70_000, 70_000)).toBe(60_000);
    expect(() => timeFor(65_000, 10_000, 70_000, 70_000)).toThrow('It would take 75 s here; the plan allows 70 s.');
    expect(timeFor(550_000, 10_000, 70_000, undefined)).toBe(590_000);
  });
});
