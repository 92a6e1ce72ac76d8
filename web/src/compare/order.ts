import type { Schemas } from '../api/client.ts';
import type { TestGroup } from '../format/format.ts';
import { certainty } from './verdict.ts';

export type ComparedRow = Schemas['ComparedRow'];
export const ORDERS = ['group', 'size', 'certainty'] as const;
export type Order = (typeof ORDERS)[number];

export interface Section {
  group: TestGroup | null;
  rows: ComparedRow[];
}

/** The rows as they are shown: under their groups, or in one list by what one side did. */
export function sections(rows: readonly ComparedRow[], order: Order, side: number): Section[] {
  if (order === 'group') {
    const groups = new Map<TestGroup, ComparedRow[]>();
    for (const row of rows) groups.set(row.metric.group, [...(groups.get(row.metric.group) ?? []), row]);
    return [...groups].map(([group, all]) => ({ group, rows: all }));
  }
  const size = (row: ComparedRow) => {
    const cell = row.cells[side];
    if (!cell) return -1;
    if (order === 'certainty') return certainty(cell);
    return cell.ratio === undefined ? -1 : Math.abs(Math.log(cell.ratio));
  };
  const sorted = rows.map((row) => ({ row, by: size(row) })).sort((a, b) => (a.by === b.by ? 0 : b.by - a.by));
  return sorted.length > 0 ? [{ group: null, rows: sorted.map((s) => s.row) }] : [];
}

/** Where days differ more than runs do: tests that a further day would settle, and on how many days. */
export function missingSessions(rows: readonly ComparedRow[]): {
  tests: { testId: number; test: string }[];
  days: number;
} {
  const tests = new Map<number, string>();
  let days = 0;
  for (const { metric, cells } of rows) {
    if (metric.formula !== undefined) continue;
    for (const c of cells) {
      if (c.verdict === 'CANNOT_TELL' && c.moreSessions !== undefined) {
        tests.set(metric.testId, metric.test);
        days = Math.max(days, c.moreSessions);
      }
    }
  }
  return { tests: [...tests].map(([testId, test]) => ({ testId, test })), days };
}

/** What would settle every line that cannot be told: each test with the most runs that any side lacks. */
export function missingRuns(rows: readonly ComparedRow[]): { testId: number; test: string; runs: number }[] {
  const missing = new Map<number, { testId: number; test: string; runs: number }>();
  for (const { metric, cells } of rows) {
    if (metric.formula !== undefined) continue;
    const unsure = cells
      .filter((c) => c.verdict === 'CANNOT_TELL' && !c.moreThanMost)
      .map((c) => c.moreRuns ?? (c.moreSessions === undefined ? 2 : 0));
    const runs = Math.min(30, Math.max(0, ...unsure));
    const before = missing.get(metric.testId);
    if (runs > 0 && (before === undefined || before.runs < runs))
      missing.set(metric.testId, { testId: metric.testId, test: metric.test, runs });
  }
  return [...missing.values()];
}
