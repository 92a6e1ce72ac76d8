import type { Measurement } from './types.ts';

/** A sample is never shorter than this many steps of the clock. */
const CLOCK_STEPS = 100;
/**
 * A run has about this many samples. Other programs disturb a machine in bursts of some tens of milliseconds: the median
 * of many short samples looks past a burst, while in a few long ones every sample has its share of it.
 */
const SAMPLES = 50;
const FEWEST_SAMPLES = 5;
const WARM_ENOUGH = 0.02;
/** Timings whose best is held against the best of those before. */
const LATEST = 4;
const LONGEST_WARM_UP_MS = 5_000;
/** Of the timed part. The median of the samples looks past a first few that are still warming. */
const LONGEST_WARM_UP_SHARE = 1 / 4;
const SHORTEST_SAMPLE_MS = 2;
/** Where each round is a sample of its own, no more than this many. */
const MOST_SAMPLES = 5_000;

export interface MeasureOptions {
  timedMs: number;
  clockResolutionMs: number;
  /** In milliseconds. */
  now: () => number;
  /** Of the timed part, where the same code has been warmed up before. */
  warmUpShare?: number;
  /** A sample is one round, or as few as the clock can tell: for frames, whose own times say more than their mean. */
  each?: boolean;
  /** Called between samples: lets messages in, and throws when the run is to stop. */
  between?: () => Promise<void> | void;
}

/**
 * Times a piece of work: finds how many rounds make a sample long enough for the clock, warms up untimed until it is
 * warm (at most 5 s, and no longer than a quarter of the timed part), then takes samples until their sum is the timed part.
 *
 * @param work does so many rounds, and checks each one's answer
 * @param perRound how much of the test's unit one round is, for rates per second
 */
export async function measure(
  work: (rounds: number) => Promise<void> | void,
  perRound: number,
  options: MeasureOptions,
): Promise<Measurement> {
  const { timedMs, clockResolutionMs, now, between, warmUpShare = LONGEST_WARM_UP_SHARE } = options;
  if (!(timedMs > 0) || !(clockResolutionMs >= 0)) {
    throw new RangeError(`timedMs must be above 0 and clockResolutionMs 0 or more, not ${timedMs}, ${clockResolutionMs}`);
  }
  const least = Math.max(CLOCK_STEPS * clockResolutionMs, timedMs / SAMPLES, SHORTEST_SAMPLE_MS);

  const time = async (rounds: number): Promise<number> => {
    await between?.();
    const start = now();
    await work(rounds);
    return now() - start;
  };

  let rounds = 1;
  let took = await time(rounds);
  while (took < least) {
    // At most eight times as many at once: the first timings are too slow, and a guess from them too small, never too large.
    const factor = took > 0 ? Math.min(8, Math.max(1.2, (1.1 * least) / took)) : 8;
    rounds = Math.ceil(rounds * factor);
    took = await time(rounds);
  }

  const warmUpEnd = now() + Math.min(LONGEST_WARM_UP_MS, timedMs * warmUpShare);
  const recent = [took];
  while (now() < warmUpEnd && !isWarm(recent)) recent.push(await time(rounds));
  // What warmed up may be much faster than what was calibrated.
  const warm = recent[recent.length - 1]!;
  if (options.each) rounds = Math.max(1, Math.ceil((rounds * Math.max(CLOCK_STEPS * clockResolutionMs, timedMs / MOST_SAMPLES)) / Math.max(warm, 0.001)));
  else if (warm < least) rounds = Math.ceil(rounds * Math.min(8, (1.1 * least) / Math.max(warm, clockResolutionMs, 0.001)));

  const times: number[] = [];
  let sum = 0;
  while (sum < timedMs || times.length < FEWEST_SAMPLES) {
    const t = await time(rounds);
    times.push(t);
    sum += t;
  }
  const unit = (t: number) => (rounds * perRound * 1000) / t;
  const samples = times.map(unit);
  const rate = median(samples);
  const typical = median(times);
  return { rate, samples, resolution: (rate * clockResolutionMs) / typical, timedMs: sum };
}

/**
 * Whether work has stopped to become faster: three timings in a row agree within 2 %, or, where other programs disturb the
 * machine so that they never will, the best of the latest is no better than the best before.
 */
export function isWarm(timings: readonly number[]): boolean {
  if (timings.length < 3) return false;
  const three = timings.slice(-3);
  if (Math.max(...three) <= Math.min(...three) * (1 + WARM_ENOUGH)) return true;
  return timings.length >= 2 * LATEST && Math.min(...timings.slice(-LATEST)) >= Math.min(...timings.slice(0, -LATEST)) * (1 - WARM_ENOUGH);
}

/** Middle value; the mean of the middle two where there is an even number. The array is left as it was. */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError('a median needs at least one value');
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
