import type { DeviceSeat } from './api.ts';

/** Calibration, warming up and loading, as a share of the timed part. */
const AROUND = 0.7;
const LEAST_AROUND_MS = 500;

/** A test with a time of its own works without a pause, so little is around it. */
function oneRun(own: number | undefined, timedMs: number): number {
  return own ?? timedMs + Math.max(LEAST_AROUND_MS, timedMs * AROUND);
}

/** Whole minutes a round takes on this device, without what the reviewer does by hand. At least 1. */
export function aboutMinutes(seat: Pick<DeviceSeat, 'tests' | 'timedMs'>): number {
  const ms = seat.tests
    .filter((test) => !test.byHand)
    .reduce((sum, test) => sum + test.runs * (oneRun(test.timedMs, seat.timedMs) + test.pauseMs), 0);
  return Math.max(1, Math.round(ms / 60_000));
}

export function inMinutes(minutes: number): string {
  return minutes === 1 ? 'about a minute' : `about ${minutes} minutes`;
}
