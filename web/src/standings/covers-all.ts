import { covers, type Covers } from '../format/verdict.ts';

/** Which noise the intervals of a standing know, as one phrase. */
export function coversAll(rows: readonly { covers?: Covers; low?: number; index?: number }[]): string {
  const all = new Set(rows.filter((r) => r.index !== undefined).flatMap((r) => r.covers ?? []));
  if (all.size === 0) return 'from run-to-run noise';
  return covers(all.size === 1 ? [...all][0]! : 'PARTLY');
}
