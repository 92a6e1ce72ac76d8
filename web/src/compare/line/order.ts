import type { Schemas } from '../../api/client.ts';
import type { TestGroup } from '../../format/format.ts';
import { certainty } from '../../format/verdict.ts';
import type { COMPARE_ORDERS } from '../../shell/search-params.ts';

export type ComparedRow = Schemas['ComparedRow'];
export type Order = (typeof COMPARE_ORDERS)[number];

export interface Section {
  group: TestGroup | null;
  rows: ComparedRow[];
  /** How far a line stands below another one that it is a part of, by metric. */
  depth: ReadonlyMap<number, number>;
}

/** What a total is computed from, where it is more than a conversion of one score. */
export function partsOf(metric: ComparedRow['metric']): number[] {
  const inputs = [...new Set(Object.values(metric.inputs))];
  return metric.formula !== undefined && inputs.length > 1 ? inputs : [];
}

/** The line that each one is a part of: the total it enters, or the first number of its own test. */
function parents(rows: readonly ComparedRow[]): Map<number, ComparedRow> {
  const of = new Map<number, ComparedRow>();
  for (const row of rows) {
    const own = rows.find((r) => r !== row && r.metric.testId === row.metric.testId && r.metric.main);
    if (own && !row.metric.main) of.set(row.metric.id, own);
  }
  for (const total of rows)
    for (const part of partsOf(total.metric))
      if (part !== total.metric.id && !of.has(part) && !of.has(total.metric.id)) of.set(part, total);
  return of;
}

/** Parts below what they are parts of; otherwise the order stays. */
function nested(group: TestGroup, rows: readonly ComparedRow[]): Section {
  const parent = parents(rows);
  const depth = new Map<number, number>();
  const ordered: ComparedRow[] = [];
  const add = (row: ComparedRow, level: number) => {
    if (depth.has(row.metric.id)) return;
    depth.set(row.metric.id, level);
    ordered.push(row);
    for (const child of rows) if (parent.get(child.metric.id) === row) add(child, level + 1);
  };
  for (const row of rows) if (!parent.has(row.metric.id)) add(row, 0);
  // Totals that enter one another in a circle would otherwise be lost.
  for (const row of rows) add(row, 0);
  return { group, rows: ordered, depth };
}

/** A suite's only total is called by the suite; every other line by its metric. */
export function lineName(row: ComparedRow, rows: readonly ComparedRow[]): string {
  const totals = rows.filter(
    (r) => r.metric.suiteVersionId === row.metric.suiteVersionId && partsOf(r.metric).length > 0,
  );
  return totals.length === 1 && totals[0] === row ? `${row.metric.suite}, in all` : row.metric.name;
}

/** Below its test, a number is called by what it says of it: the test's name stands just above. */
export function nameBelow(row: ComparedRow, name: string, depth: number): string {
  const test = `${row.metric.test}, `;
  return depth > 0 && !row.metric.main && name.startsWith(test) ? name.slice(test.length) : name;
}

/** The rows as they are shown: under their groups, or in one list by what one side did. */
export function sections(rows: readonly ComparedRow[], order: Order, side: number): Section[] {
  if (order === 'group') {
    const groups = new Map<TestGroup, ComparedRow[]>();
    for (const row of rows) groups.set(row.metric.group, [...(groups.get(row.metric.group) ?? []), row]);
    return [...groups].map(([group, all]) => nested(group, all));
  }
  const size = (row: ComparedRow) => {
    const cell = row.cells[side];
    if (!cell) return -1;
    if (order === 'certainty') return certainty(cell);
    return cell.ratio === undefined ? -1 : Math.abs(Math.log(cell.ratio));
  };
  const sorted = rows.map((row) => ({ row, by: size(row) })).sort((a, b) => (a.by === b.by ? 0 : b.by - a.by));
  return sorted.length > 0 ? [{ group: null, rows: sorted.map((s) => s.row), depth: new Map() }] : [];
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

/** Of the suites some of whose lines rest on a spread that nobody measured here, the one with the most of them. */
export function leastKnownSuite(
  rows: readonly ComparedRow[],
): { id: number; name: string; restsOn: string; stated: boolean; tests: number[] } | undefined {
  const suites = new Map<number, { id: number; name: string; restsOn: string; stated: boolean; tests: number[] }>();
  for (const { metric, cells, restsOn } of rows) {
    if (restsOn === undefined || !cells.some((c) => c.unmeasured && c.verdict !== undefined)) continue;
    const suite = suites.get(metric.suiteVersionId) ?? {
      id: metric.suiteVersionId,
      name: `${metric.suite} ${metric.version}`,
      restsOn,
      stated: restsOn.startsWith('as stated'),
      tests: [],
    };
    if (!suite.tests.includes(metric.testId)) suite.tests.push(metric.testId);
    suites.set(metric.suiteVersionId, suite);
  }
  return [...suites.values()].sort((a, b) => b.tests.length - a.tests.length)[0];
}

/** What would settle every line that is too close to call: each test with the most runs that any side lacks. */
export function missingRuns(rows: readonly ComparedRow[]): { testId: number; test: string; runs: number }[] {
  const missing = new Map<number, { testId: number; test: string; runs: number }>();
  for (const { metric, cells, runs: runsOfBase } of rows) {
    if (metric.formula !== undefined) continue;
    const unsure = cells
      .filter((c) => c.verdict === 'CANNOT_TELL' && !c.moreThanMost)
      .map((c) =>
        c.threeEach
          ? 3 - Math.min(c.runs ?? 1, runsOfBase || 3)
          : (c.moreRuns ?? (c.moreSessions === undefined ? 2 : 0)),
      );
    const runs = Math.min(30, Math.max(0, ...unsure));
    const before = missing.get(metric.testId);
    if (runs > 0 && (before === undefined || before.runs < runs))
      missing.set(metric.testId, { testId: metric.testId, test: metric.test, runs });
  }
  return [...missing.values()];
}
