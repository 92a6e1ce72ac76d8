import { duration } from '../../format/format.ts';
import type { DeviceSeat } from '../seat/api.ts';
import type { Showing } from './run-session.ts';

/** How far a round is: runs that are behind it, and all that the device carries out by itself. */
export function progress(seat: Pick<DeviceSeat, 'tests'>, showing: Showing | null): { done: number; total: number } {
  const own = (test: DeviceSeat['tests'][number]) => (test.byHand ? 0 : test.runs);
  const total = seat.tests.reduce((sum, test) => sum + own(test), 0);
  const index = seat.tests.findIndex((test) => test.id === showing?.test?.id);
  if (showing?.phase === 'DONE') return { done: total, total };
  if (index < 0) return { done: 0, total };
  const before = seat.tests.slice(0, index).reduce((sum, test) => sum + own(test), 0);
  const at = seat.tests[index]!;
  return { done: Math.min(total, before + (at.byHand ? 0 : Math.max(0, (showing!.runNumber ?? 1) - 1))), total };
}

/** Fewer runs say too little about those to come. */
const LEAST = 2;

/**
 * What is left, from how long the runs took that were carried out since the page was opened.
 *
 * @param first runs that were behind it then
 */
export function leftMs(at: { done: number; total: number }, first: number, elapsedMs: number): number | undefined {
  const since = at.done - first;
  return since < LEAST ? undefined : (elapsedMs / since) * (at.total - at.done);
}

export function progressWords(at: { done: number; total: number }, left: number | undefined): string {
  return `${at.done} of ${at.total} runs${left === undefined || at.done === at.total ? '' : `, about ${duration(left)} left`}`;
}
