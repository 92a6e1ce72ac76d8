import type { Schemas } from '../../api/client.ts';
import { testGroup, type TestGroup } from '../../format/format.ts';
import { partWords } from '../../format/parts.ts';
import { times } from '../../format/ratio.ts';
import { takeWords } from '../../format/takes.ts';
import { verdictWords } from '../../format/verdict.ts';
import { compareSearch, trendsSearch } from '../../shell/search-params.ts';

/** What Compare was asked beside who is compared. */
export type ComparedBy = Schemas['ComparedBy'];
/** What Trends was asked beside whose and along what. */
export type TrendBy = Schemas['TrendBy'];
/** What Standings was asked. */
export type StandingsAsk = Schemas['StandingsAsk'];
/** Whoever ranks: the whole question of a view, or a class alone, as older pieces have it. */
export interface AskedStanding {
  asked?: StandingsAsk;
  deviceClass?: Schemas['ConfigurationRow']['deviceClass'];
}

const MOST_NAMED = 4;

export function askOf(of: AskedStanding): StandingsAsk {
  return of.asked ?? (of.deviceClass ? { deviceClass: [of.deviceClass] } : {});
}

function joined(parts: readonly (string | false | undefined)[]): string {
  return parts.filter((p) => typeof p === 'string' && p !== '').join(', ');
}

/** What a comparison was narrowed to, for a caption: "without Storage, on battery"; empty where nothing was. */
export function byWords(by: ComparedBy | undefined, comparison: Schemas['Comparison']): string {
  if (!by) return '';
  const suite = comparison.rows.find((r) => r.metric.suiteVersionId === by.suite)?.metric;
  return joined([
    by.group !== undefined && `${testGroup(by.group)} tests alone`,
    by.suite !== undefined && `${suite ? `${suite.suite} ${suite.version}` : 'one suite'} alone`,
    (by.without ?? []).length > 0 && `without ${by.without!.map((key) => partWords(key, comparison.rows)).join(', ')}`,
    comparison.per && `per ${comparison.per.label}`,
    comparison.take !== 'USUAL' && takeWords(comparison.take),
    comparison.baseTake !== comparison.take && `the base ${takeWords(comparison.baseTake)}`,
  ]);
}

/** What a standing ranks by and what it was narrowed to, for a caption. */
export function standingWords(standings: Schemas['Standings'], of: AskedStanding): string {
  return joined([
    standings.metric ? `by ${standings.scope}` : `for ${standings.purpose}, over ${standings.scope}`,
    narrowedWords(standings, of),
  ]);
}

/** What a standing was narrowed to: "without Storage, per price"; empty where nothing was. */
export function narrowedWords(standings: Schemas['Standings'], of: AskedStanding): string {
  const asked = askOf(of);
  const without = (asked.without ?? []).map((key) =>
    key.startsWith('group:') ? testGroup(key.slice('group:'.length) as TestGroup) : undefined,
  );
  // Tests and suites that are left out are named by the answer, groups by themselves.
  const named = without.some((w) => w === undefined)
    ? [...new Set(standings.leftOut.filter((l) => l.reason === 'left out here').map((l) => l.test))]
    : without;
  return joined([
    named.length > 0 && `without ${named.length > MOST_NAMED ? `${named.length} tests` : named.join(', ')}`,
    standings.per && `per ${standings.per}`,
    standings.take !== undefined && standings.take !== 'USUAL' && takeWords(standings.take),
    asked.onlyTests &&
      asked.onlyTests.length > 0 &&
      !standings.scope.includes('of a list') &&
      `by ${asked.onlyTests.length} tests of a list`,
    asked.only && asked.only.length > 0 && `${asked.only.length} picked by hand`,
    asked.maker && asked.maker.length > 0 && `made by ${asked.maker.join(', ')}`,
    asked.fact &&
      asked.fact.length > 0 &&
      `${asked.fact.length} ${asked.fact.length === 1 ? 'condition' : 'conditions'} on facts`,
    asked.fresh && 'without what is stale',
    asked.power === 'BATTERY' ? 'measured on battery' : asked.power === 'MAINS' && 'measured on mains',
  ]);
}

/** What a trend was narrowed to, for a caption; empty where nothing was. */
export function trendWords(by: TrendBy | undefined, trends: Schemas['Trends']): string {
  if (!by) return '';
  const metrics = trends.lines.map((l) => ({ metric: l.metric }));
  const suite = metrics.find((m) => m.metric.suiteVersionId === by.suite)?.metric;
  return joined([
    by.group !== undefined && `${testGroup(by.group)} tests alone`,
    by.suite !== undefined && `${suite ? `${suite.suite} ${suite.version}` : 'one suite'} alone`,
    (by.without ?? []).length > 0 && `without ${by.without!.map((key) => partWords(key, metrics)).join(', ')}`,
  ]);
}

/** What a trend comes to from its first step to its last, which a drawing alone leaves to the eye; empty where nothing has both. */
export function wholeWayWords({ overall, steps }: Schemas['Trends']): string {
  const [first, last] = [overall?.points[0], overall?.points.at(-1)];
  return overall?.firstToLast && first && last
    ? ` ${steps[first.step]!.label} to ${steps[last.step]!.label}: ${times(overall.firstToLast.ratio, 3)}, ${verdictWords(overall.firstToLast.verdict)}.`
    : '';
}

/** The address at which Trends asks the same. */
export function trendSearchOf(of: {
  model: number;
  unit?: number;
  along?: string;
  by?: TrendBy;
}): ReturnType<typeof trendsSearch> {
  return trendsSearch({ ...of.by, model: of.model, unit: of.unit, along: of.along });
}

/** The address at which Compare asks the same. */
export function compareSearchOf(of: {
  configuration: number;
  base: number;
  by?: ComparedBy;
}): ReturnType<typeof compareSearch> {
  const { materiality, ...rest } = of.by ?? {};
  return compareSearch({ ...rest, matters: materiality, ids: [of.base, of.configuration], base: of.base });
}
