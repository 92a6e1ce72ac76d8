/** Smallest value that so many per cent of the values do not exceed. */
export function percentile(values: readonly number[], percent: number): number {
  if (values.length === 0) throw new RangeError('a percentile needs at least one value');
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.ceil((percent / 100) * sorted.length) - 1)]!;
}

/** Mean difference between one value and the next, whichever is larger. */
export function jitter(values: readonly number[]): number {
  if (values.length < 2) throw new RangeError('jitter needs at least two values');
  let sum = 0;
  for (let i = 1; i < values.length; i++) sum += Math.abs(values[i]! - values[i - 1]!);
  return sum / (values.length - 1);
}

/** Bytes in so many ms, in Mbit/s. */
export function mbit(bytes: number, ms: number): number {
  return (8 * bytes) / 1000 / ms;
}

/** What a stream brought, in steps of equal length from its first byte on. Times on one clock, in ms. */
export interface Counted {
  firstMs: number;
  stepMs: number;
  counts: readonly number[];
}

/**
 * What streams brought together between two times, step by step.
 *
 * @returns bytes of each whole step from `from` on; a count belongs to the step in which it begins
 */
export function together(streams: readonly Counted[], from: number, to: number, stepMs: number): number[] {
  const steps = new Array<number>(Math.max(0, Math.floor((to - from) / stepMs))).fill(0);
  for (const { firstMs, stepMs: own, counts } of streams)
    counts.forEach((bytes, i) => {
      const step = Math.floor((firstMs + i * own - from) / stepMs);
      if (step >= 0 && step < steps.length) steps[step] = steps[step]! + bytes;
    });
  return steps;
}

/** From this share of what the server can give, a score may say more about the server than about the way to it. */
const NEAR = 0.8;

/** Words for a run that the server itself may have held back; nothing where it did not. */
export function nearLimit(rate: number, limit: { limitMbit?: number; limitBy?: string }): string | undefined {
  if (limit.limitMbit === undefined || rate < NEAR * limit.limitMbit) return undefined;
  return `Near what this server can give: ${rate.toFixed(0)} of ${limit.limitMbit.toFixed(0)} Mbit/s${limit.limitBy ? ` (${limit.limitBy})` : ''}.`;
}
