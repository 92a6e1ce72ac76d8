import type { QueryClient } from '@tanstack/react-query';

/** What answers are made from. Whoever changes one of these says so, and every answer made from it is asked again. */
export type Source = 'scores' | 'catalogue' | 'shelf';

/** Scores with the names of what they were made on and by which test: nearly every answer. */
const ALL: readonly Source[] = ['scores', 'catalogue', 'shelf'];

/**
 * By the first word of a query's key. A query that is not here is made from none of them: people, keys, the look, what is
 * tried while somebody types. A test holds that every key of the program is here or said to be none.
 */
export const MADE_FROM: Readonly<Record<string, readonly Source[]>> = {
  against: ALL,
  backlog: ['scores', 'catalogue'],
  claims: ALL,
  'compare-pairs': ALL,
  'compared-marks': ALL,
  'compared-metric': ALL,
  'compared-totals': ALL,
  comparison: ALL,
  conditions: ['scores'],
  configuration: ALL,
  configurations: ALL,
  difference: ['shelf'],
  due: ['scores', 'shelf'],
  estimate: ['scores', 'catalogue'],
  'fact-values': ['shelf'],
  factors: ALL,
  firmness: ALL,
  generations: ALL,
  history: ALL,
  'late-runs': ['scores'],
  ledger: ALL,
  makers: ['shelf'],
  method: ALL,
  model: ALL,
  models: ALL,
  'plan-time': ['scores', 'catalogue'],
  plans: ['catalogue'],
  purposes: ['catalogue'],
  quantities: ['shelf'],
  reading: ALL,
  references: ALL,
  'report-card': ALL,
  round: ALL,
  rules: ['catalogue'],
  search: ALL,
  'score-preview': ALL,
  session: ['scores', 'shelf'],
  sheet: ALL,
  'standing-quantities': ['shelf'],
  standings: ALL,
  'standings-tried': ALL,
  'standings-hours': ALL,
  'suite-versions': ['catalogue'],
  tests: ['scores', 'catalogue'],
  trends: ALL,
  unfinished: ['scores', 'shelf'],
  units: ['shelf'],
  'usual-spreads': ['scores'],
  values: ALL,
  why: ALL,
};

/** Asks again every answer that is made from what has changed. */
export function changed(queries: QueryClient, source: Source): Promise<void> {
  return queries.invalidateQueries({
    predicate: ({ queryKey }) => (MADE_FROM[String(queryKey[0])] ?? []).includes(source),
  });
}
