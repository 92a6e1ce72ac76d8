import type { Schemas } from '../../api/client.ts';

/** Of standings that were saved before they said it in words. */
const SAVED: Record<string, string> = {
  WITHIN_ONE_SESSION: 'within one session',
  PARTLY: 'day to day included for some of the tests',
  DAY_TO_DAY: 'day to day included',
};

/** What the intervals of a standing rest on about other days, as one phrase. */
export function coversAll({
  days,
  rows,
}: Pick<Schemas['Standings'], 'days'> & { rows: readonly { covers?: string; index?: number }[] }): string {
  if (days !== undefined) return days;
  const all = new Set(rows.filter((r) => r.index !== undefined).flatMap((r) => r.covers ?? []));
  return all.size === 0 ? 'from run-to-run noise' : (SAVED[all.size === 1 ? [...all][0]! : 'PARTLY'] ?? '');
}
