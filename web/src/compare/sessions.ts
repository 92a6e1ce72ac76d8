import type { Schemas } from '../api/client.ts';

type Side = Schemas['ComparedMetric']['sides'][number];

export interface SessionOf {
  id: number;
  /** When its first reading was finished. */
  at: string;
  runs: number;
  /** Geometric for ratios, as everywhere. */
  mean: number;
  conditions: string[];
}

/** What counts of a side, by session, the oldest first. */
export function sessionsOf(side: Pick<Side, 'readings'>, scale: 'RATIO' | 'DIFFERENCE'): SessionOf[] {
  const by = new Map<number, Side['readings']>();
  for (const r of side.readings)
    if (r.asideReason === undefined) by.set(r.sessionId, [...(by.get(r.sessionId) ?? []), r]);
  return [...by]
    .map(([id, readings]) => {
      const sum = readings.reduce((n, r) => n + (scale === 'RATIO' ? Math.log(r.value) : r.value), 0);
      const mean = sum / readings.length;
      return {
        id,
        at: readings.map((r) => r.finishedAt).sort()[0]!,
        runs: readings.length,
        mean: scale === 'RATIO' ? Math.exp(mean) : mean,
        conditions: [...new Set(readings.flatMap((r) => r.conditions))],
      };
    })
    .sort((a, b) => a.at.localeCompare(b.at));
}
