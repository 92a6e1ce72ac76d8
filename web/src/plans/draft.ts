import type { Schemas } from '../api/client.ts';

type PlanRow = Schemas['PlanRow'];
export type PlanItem = PlanRow['items'][number];

/** A plan as it is being written. */
export interface Draft {
  name: string;
  runs: number;
  timedMs: number;
  pauseMs: number;
  stopOnFailure: boolean;
  /** Present where the tests come in a random order. */
  shuffleSeed?: number;
  coolByProbe: boolean;
  /** Both are there where runs go on until the mean is known. */
  mostRuns?: number;
  knownWithin?: number;
  /** On how many days each device is measured; absent for one. */
  days?: number;
  items: PlanItem[];
}

export const EMPTY: Draft = {
  name: '',
  runs: 3,
  timedMs: 3000,
  pauseMs: 5000,
  stopOnFailure: false,
  coolByProbe: false,
  items: [],
};

export function draftOf(plan: PlanRow, copy: boolean): Draft {
  const { name, runs, timedMs, pauseMs, stopOnFailure, shuffleSeed, coolByProbe, mostRuns, knownWithin, days, items } =
    plan;
  return {
    name: copy ? `${name}, changed` : name,
    runs,
    timedMs,
    pauseMs,
    stopOnFailure,
    ...(shuffleSeed !== undefined && { shuffleSeed }),
    coolByProbe,
    ...(mostRuns !== undefined && knownWithin !== undefined && { mostRuns, knownWithin }),
    ...(days !== undefined && { days }),
    items: [...items],
  };
}

/** Small enough to be said aloud. */
export function newSeed(): number {
  return 1 + Math.floor(Math.random() * 9999);
}

export interface SuiteShare {
  name: string;
  tests: number;
}

/** The suites of a plan's tests, in the order of their first test. */
export function suitesOf(tests: readonly ({ suite: string; mode: string } | undefined)[]): SuiteShare[] {
  const shares = new Map<string, number>();
  for (const t of tests) {
    const name = t ? `${t.suite}${t.mode && `, ${t.mode}`}` : 'tests that are gone';
    shares.set(name, (shares.get(name) ?? 0) + 1);
  }
  return [...shares].map(([name, count]) => ({ name, tests: count }));
}

const LOOP_MS = 300_000;

/** A run that takes hours, or somebody's walk. */
const ONCE = /^(battery-|network-walk)/;

/** A test as it comes into a plan. One in a loop is run once, for five minutes unless somebody says otherwise. */
export function newItem(testId: number, key = ''): PlanItem {
  if (ONCE.test(key)) return { testId, nice: false, runs: 1 };
  return key.startsWith('endurance-') ? { testId, nice: false, runs: 1, timedMs: LOOP_MS } : { testId, nice: false };
}

/** Moves the item at a place one up or down; at the end it stays. */
export function moved(items: readonly PlanItem[], at: number, step: -1 | 1): PlanItem[] {
  const to = at + step;
  if (to < 0 || to >= items.length) return [...items];
  const next = [...items];
  [next[at], next[to]] = [next[to]!, next[at]!];
  return next;
}

/** Sets one value of an item; an empty one is taken away, so that the plan's own counts. */
export function withItem(
  items: readonly PlanItem[],
  at: number,
  change: { [K in keyof PlanItem]?: PlanItem[K] | undefined },
): PlanItem[] {
  return items.map((item, i) =>
    i === at
      ? (Object.fromEntries(
          Object.entries({ ...item, ...change }).filter(([, v]) => v !== undefined),
        ) as unknown as PlanItem)
      : item,
  );
}

/** A number that somebody types; nothing where it is none. */
export function numberOf(text: string): number | undefined {
  const n = Number(text.replace(',', '.'));
  return text.trim() === '' || Number.isNaN(n) ? undefined : n;
}
