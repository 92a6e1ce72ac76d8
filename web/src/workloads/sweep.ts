import { measure, type MeasureOptions } from './measure.ts';
import type { Measurement } from './types.ts';

/** One place of a sweep: x, and the work there. */
export interface Place {
  x: number;
  work: (rounds: number) => Promise<void> | void;
  /** How much of the curve's unit one round is, for rates per second. */
  perRound: number;
}

/** One point of a curve; y is a rate. */
export interface Point {
  x: number;
  y: number;
}

/** After the first place the code is warm, and what is new is only what it works on. */
const LATER_WARM_UP_SHARE = 1 / 10;

/**
 * Measures place after place, each for its share of the timed part. Each is prepared when its turn comes.
 *
 * @param places answers null for a place that cannot be reached here; the curve then ends before it
 */
export async function sweep(xs: readonly number[], place: (x: number) => Promise<Place | null> | Place | null, options: MeasureOptions): Promise<{ points: Point[]; timedMs: number; short: boolean }> {
  const points: Point[] = [];
  let timedMs = 0;
  for (const x of xs) {
    const here = await place(x);
    if (!here) return { points, timedMs, short: true };
    const measured = await measure(here.work, here.perRound, { ...options, timedMs: options.timedMs / xs.length, ...(points.length > 0 && { warmUpShare: LATER_WARM_UP_SHARE }) });
    points.push({ x, y: measured.rate });
    timedMs += measured.timedMs;
  }
  return { points, timedMs, short: false };
}

/** A curve as a measurement: x and y in turn. The value is the largest y; the server finds the other numbers itself. */
export function ofCurve(points: readonly Point[], timedMs: number, more: Measurement['more'], note?: string): Measurement {
  if (points.length < 2) throw new Error('A curve needs at least two sizes, and only one could be measured here.');
  return { rate: Math.max(...points.map((p) => p.y)), samples: points.flatMap((p) => [p.x, p.y]), resolution: 0, timedMs, more, note };
}
