import type { Standings } from '../question/ask.ts';

/** Position of each configuration that is placed, counted from 1. */
export function positions(standings: Standings): Map<number, number> {
  return new Map(standings.rows.filter((r) => r.status === 'PLACED').map((r, i) => [r.configuration.id, i + 1]));
}

/** How many positions up each went, below 0 where it went down. @returns null for one that was not placed before or is not now */
export function moves(before: Standings, now: Standings): Map<number, number | null> {
  const then = positions(before);
  const here = positions(now);
  return new Map(
    now.rows.map((r) => {
      const [a, b] = [then.get(r.configuration.id), here.get(r.configuration.id)];
      return [r.configuration.id, a === undefined || b === undefined ? null : a - b];
    }),
  );
}
