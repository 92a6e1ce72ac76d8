import type { MeasureOptions } from './measure.ts';
import { ofCurve, type Point } from './sweep.ts';
import type { Measurement } from './types.ts';

/** One point of the curve. Shorter loops would show the work of others, longer ones would hide when a device slows down. */
const LOOP_MS = 5_000;
const FEWEST_LOOPS = 8;
/** Between two looks at the clock: long enough to be timed, short enough to stop a loop where it should end. */
const CHUNK_MS = 50;

/**
 * Works without a pause, and notes how much was done in each loop. Nothing is warmed up before: that a device is cold at
 * first is what the curve is to show.
 *
 * @returns a curve of rates over seconds since the start
 */
export async function endure(work: (rounds: number) => Promise<void> | void, perRound: number, options: MeasureOptions): Promise<Measurement> {
  const { timedMs, clockResolutionMs, now, between } = options;
  const loopMs = Math.min(LOOP_MS, timedMs / FEWEST_LOOPS);
  const chunkMs = Math.max(100 * clockResolutionMs, Math.min(CHUNK_MS, loopMs / 4));
  let rounds = 1;
  for (;;) {
    const start = now();
    await work(rounds);
    const took = now() - start;
    if (took >= chunkMs) break;
    rounds = Math.ceil(rounds * Math.min(8, took > 0 ? Math.max(1.2, (1.1 * chunkMs) / took) : 8));
  }
  const points: Point[] = [];
  const begin = now();
  let loopBegin = begin;
  let done = 0;
  while (now() - begin < timedMs || points.length < FEWEST_LOOPS) {
    await between?.();
    await work(rounds);
    done += rounds;
    const end = now();
    if (end - loopBegin >= loopMs) {
      points.push({ x: (end - begin) / 1000, y: (done * perRound * 1000) / (end - loopBegin) });
      loopBegin = end;
      done = 0;
    }
  }
  return ofCurve(points, now() - begin, undefined);
}
