import type { DeviceSeat } from '../seat/api.ts';

/** Calibration, warming up and loading, as a share of the timed part. */
const AROUND = 0.7;
const LEAST_AROUND_MS = 500;

/** A test with a time of its own works without a pause, so little is around it. */
function oneRun(own: number | undefined, timedMs: number): number {
  return own ?? timedMs + Math.max(LEAST_AROUND_MS, timedMs * AROUND);
}

/** As long as a battery lasts, which nobody knows before. */
const ofBattery = (key: string) => key.startsWith('battery-');

/** Whole minutes a round takes on this device, without what the reviewer does by hand or a battery decides. At least 1. */
export function aboutMinutes(seat: Pick<DeviceSeat, 'tests' | 'timedMs'>): number {
  const ms = seat.tests
    .filter((test) => !test.byHand && !ofBattery(test.key))
    .reduce((sum, test) => sum + test.runs * (oneRun(test.timedMs, seat.timedMs) + test.pauseMs), 0);
  return Math.max(1, Math.round(ms / 60_000));
}

export function inMinutes(minutes: number): string {
  return minutes === 1 ? 'about a minute' : `about ${minutes} minutes`;
}

/** How long a round takes, in words. */
export function inAll(seat: Pick<DeviceSeat, 'tests' | 'timedMs'>): string {
  if (seat.tests.length > 0 && seat.tests.every((test) => ofBattery(test.key))) return 'as long as the battery takes';
  const minutes = inMinutes(aboutMinutes(seat));
  return seat.tests.some((test) => ofBattery(test.key))
    ? `${minutes} and as long as the battery takes`
    : `${minutes} in all`;
}
