import type { Measurement, Obstacle } from '../../workloads/types.ts';
import { reasonOf } from '../../workloads/types.ts';
import { isEnough, type Value } from './enough.ts';
import type { DeviceSeat, DeviceTest, Phase, Reason, RunBody } from '../seat/api.ts';

/** Why a run is cut off. Most are repeated as soon as that is possible; a stop by a person ends the round. */
export class Interrupted extends Error {
  readonly reason: Reason;
  constructor(reason: Reason, words: string) {
    super(words);
    this.reason = reason;
  }
}

/** What a run comes to before it is kept. */
export type Finished = Omit<RunBody, 'attempt'> & { attempt: number };

/** Everything the round needs from the page around it; tests put their own in its place. */
export interface Surroundings {
  obstacle(test: DeviceTest): Promise<Obstacle | null>;
  /** Runs once; throws Interrupted, WrongAnswer or another error. */
  execute(test: DeviceTest, runNumber: number, signal: AbortSignal, time: RunTime): Promise<Measurement>;
  begin(testId: number, runNumber: number, attempt: number): Promise<void>;
  keep(run: Finished): Promise<void>;
  tell(phase: Phase, test?: DeviceTest, runNumber?: number, untilMs?: number): void;
  /** Resolves when the page is shown; at once where it is. */
  shown(): Promise<void>;
  isShown(): boolean;
  /** Resolves when the reviewer lets this run begin; at once where nothing holds it. Throws Interrupted when stopped. */
  allowed(test: DeviceTest, runNumber: number): Promise<void>;
  /** Resolves when the reviewer, or whoever holds the device, says that it goes on. Throws Interrupted when stopped. */
  goSaid(): Promise<void>;
  /** Waits out the pause between two runs; ends early where the round is stopped. */
  cool(ms: number): Promise<void>;
  /** Waits until the device is as fast as it was cold. */
  coolByProbe(): Promise<void>;
  /** Begins to notice what disturbs a run; the answer ends that and says what was noticed. */
  notice(test: DeviceTest): () => string | null;
  /** Whether what a run has so far is kept, so that its next attempt goes on from there. */
  hasNotes(test: DeviceTest, runNumber: number): Promise<boolean>;
  /** Aborted with Interrupted when a run has to end now, or with what it is given when the time is over. Fresh for each run. */
  watch(limitMs: number, over: Error): Watched;
  now(): number;
}

/** How a run says how long it goes on. */
export interface RunTime {
  /** Told what calibration saw that the rest takes. */
  takes: (ms: number) => void;
  /** Told that it may go on so long from now, whatever was said before. */
  more: (ms: number) => void;
}

/** A run that is watched. */
export interface Watched {
  signal: AbortSignal;
  release: () => void;
  /** From now on so long, whatever was said before. */
  extend: (ms: number, over: Error) => void;
}

const MOST_ATTEMPTS = 20;
/** The server takes no more of one run. */
const LAST_ATTEMPT = 1_000;
/** However slow a device is: with fifty tests, nobody waits longer. */
const MOST_MS = 600_000;
/** What calibration saw is a guess. */
const SPARE = 1.5;

/** A run that takes this long is stuck: the timed part, warming up and calibration need a few times the timed part. */
export function longestRunMs(timedMs: number): number {
  return 60_000 + 10 * timedMs;
}

class TookTooLong extends Error {}

const inTime = (ms: number) => (ms < 90_000 ? `${Math.ceil(ms / 1000)} s` : `${Math.round(ms / 60_000)} min`);

/** How long a run may go on from now, given what calibration saw. Throws where it would be too long. */
export function timeFor(restMs: number, tookMs: number, limitMs: number, allowedMs: number | undefined): number {
  const most = allowedMs ?? MOST_MS;
  if (tookMs + restMs > most)
    throw new TookTooLong(
      `It would take ${inTime(tookMs + restMs)} here; ${allowedMs === undefined ? 'at most' : 'the plan allows'} ${inTime(most)}.`,
    );
  return Math.min(most, Math.max(limitMs, tookMs + SPARE * restMs)) - tookMs;
}

/** The runs that are still to come, in order, given what was done before. */
export function remaining(
  seat: Pick<DeviceSeat, 'tests' | 'done'>,
): { test: DeviceTest; runNumber: number; attempt: number }[] {
  return seat.tests.flatMap((test) => {
    const done = seat.done.filter((run) => run.testId === test.id);
    if (done.some((run) => run.state === 'COULD_NOT_RUN')) return [];
    return Array.from({ length: test.runs }, (_, i) => i + 1)
      .filter((n) => !done.some((run) => run.runNumber === n && (run.state === 'OK' || run.state === 'FAILED')))
      .map((runNumber) => ({
        test,
        runNumber,
        attempt:
          1 + done.filter((run) => run.runNumber === runNumber).reduce((most, run) => Math.max(most, run.attempt), 0),
      }));
  });
}

/** Carries out what remains. Answers how it ended; every attempt was kept with its state and reason. */
export async function runRound(seat: DeviceSeat, around: Surroundings): Promise<'DONE' | 'STOPPED'> {
  let last: DeviceTest | null = null;
  /** The test whose other runs are left out. */
  let cannot: number | null = null;
  /** Where runs go on until the mean is known: what was measured, also before a reload. */
  const values = new Map<number, Map<number, Value>>();
  const measured = (testId: number, runNumber: number, value: Value) =>
    values.set(testId, (values.get(testId) ?? new Map<number, Value>()).set(runNumber, value));
  for (const run of seat.done)
    if (run.state === 'OK' && run.value !== undefined && run.resolution !== undefined)
      measured(run.testId, run.runNumber, { value: run.value, resolution: run.resolution });
  for (const { test, runNumber, attempt: first } of remaining(seat)) {
    if (cannot === test.id) continue;
    if (test.enough && isEnough(test.enough, [...(values.get(test.id) ?? new Map<number, Value>()).values()])) continue;
    if (test.byHand) {
      // The rest of its runs is the reviewer's: the device waits for all of them at once.
      cannot = test.id;
      last = test;
      try {
        around.tell('BY_HAND', test, runNumber);
        await around.goSaid();
      } catch (error) {
        if (error instanceof Interrupted) return 'STOPPED';
        throw error;
      }
      continue;
    }
    const obstacle = last === test ? null : await around.obstacle(test);
    if (obstacle) {
      cannot = test.id;
      await around.keep({
        testId: test.id,
        runNumber,
        attempt: first,
        state: 'COULD_NOT_RUN',
        reason: obstacle.reason,
        reasonWords: obstacle.words,
        durationMs: 0,
        readings: [],
      });
      continue;
    }
    for (let attempt = first, again = true; again; attempt++) {
      try {
        if (last && test.pauseUntil !== undefined) {
          around.tell('COOL_UNTIL', test, runNumber);
          await around.goSaid();
        } else if (last && test.pauseMs > 0) {
          around.tell('COOLING', test, runNumber, test.pauseMs);
          await around.cool(test.pauseMs);
        }
        if (seat.coolByProbe) {
          if (last) around.tell('COOLING', test, runNumber);
          await around.coolByProbe();
        }
        await around.allowed(test, runNumber);
        if (!around.isShown()) {
          around.tell('HIDDEN', test, runNumber);
          await around.shown();
          await around.allowed(test, runNumber);
        }
      } catch (error) {
        if (error instanceof Interrupted) return 'STOPPED';
        throw error;
      }
      last = test;
      around.tell('RUNNING', test, runNumber);
      const run = await attemptOnce(
        test,
        runNumber,
        attempt,
        test.allowedMs ?? longestRunMs(test.timedMs ?? seat.timedMs),
        test.allowedMs,
        around,
      );
      await around.keep(run);
      const main = run.readings.find((r) => r.metric === test.metric);
      if (run.state === 'OK' && main) measured(test.id, runNumber, main);
      if (run.reason === 'STOPPED_BY_REVIEWER' || run.reason === 'STOPPED_AT_DEVICE') return 'STOPPED';
      if (run.state === 'FAILED' && seat.stopOnFailure) return 'STOPPED';
      again =
        run.state === 'STOPPED' &&
        attempt < LAST_ATTEMPT &&
        // A run of hours loses nothing by being cut off, however often somebody looks at the device.
        (attempt - first + 1 < MOST_ATTEMPTS || (await around.hasNotes(test, runNumber)));
    }
  }
  return 'DONE';
}

async function attemptOnce(
  test: DeviceTest,
  runNumber: number,
  attempt: number,
  limitMs: number,
  allowedMs: number | undefined,
  around: Surroundings,
): Promise<Finished> {
  const base = { testId: test.id, runNumber, attempt, readings: [] as RunBody['readings'] };
  const started = around.now();
  const took = () => Math.round(around.now() - started);
  await around.begin(test.id, runNumber, attempt);
  const late = (ms: number) => new TookTooLong(`It was not done after ${Math.round(ms / 1000)} s.`);
  const { signal, release, extend } = around.watch(limitMs, late(limitMs));
  const takes = (restMs: number) => {
    const more = timeFor(restMs, took(), limitMs, allowedMs);
    extend(more, late(took() + more));
  };
  const more = (ms: number) => extend(ms, late(took() + ms));
  const noticed = around.notice(test);
  try {
    const measured = await around.execute(test, runNumber, signal, { takes, more });
    const disturbed = [noticed(), measured.disturbed].filter(Boolean).join(' ').slice(0, 200);
    const reading = {
      metric: test.metric,
      value: measured.rate,
      resolution: measured.resolution,
      samples: measured.samples,
    };
    return {
      ...base,
      state: 'OK',
      ...(disturbed && { disturbed }),
      ...(measured.note && { reasonWords: measured.note.slice(0, 500) }),
      durationMs: took(),
      timedMs: Math.round(measured.timedMs),
      readings: [reading, ...(measured.more ?? []).map((m) => ({ samples: [], ...m }))],
    };
  } catch (error) {
    if (error instanceof Interrupted) {
      return { ...base, state: 'STOPPED', reason: error.reason, reasonWords: error.message, durationMs: took() };
    }
    const words = (error instanceof Error ? error.message : String(error)).slice(0, 500);
    return {
      ...base,
      state: 'FAILED',
      reason: failure(error),
      reasonWords: words || 'The test ended without saying why.',
      durationMs: took(),
    };
  } finally {
    noticed();
    release();
  }
}

function failure(error: unknown): Reason {
  const known = reasonOf(error);
  if (known) return known;
  if (error instanceof TookTooLong) return 'TOO_SLOW';
  return error instanceof RangeError && /memory|allocat/i.test(error.message) ? 'OUT_OF_MEMORY' : 'ERROR';
}
