import type { Schemas } from '../../api/client.ts';
import { TEST_GROUPS, testGroup, type TestGroup } from '../../format/format.ts';
import { standingsSearch, type StandingsSearch } from '../../shell/search-params.ts';

export type Standings = Schemas['Standings'];

/** Groups have short names where there is little room. */
export function partName(part: Standings['parts'][number]): string {
  return part.kind === 'GROUP' ? testGroup(part.key as TestGroup) : part.name;
}

/** What the address says, as the server is asked. @param base of the table, where the address names none */
export function askOf(search: StandingsSearch, base: number | undefined) {
  const chosen = search.base ?? base;
  return {
    ...(search.classes && { deviceClass: search.classes }),
    ...(search.only && { only: search.only }),
    ...(search.makers && { maker: search.makers }),
    ...(search.from !== undefined && { priceFrom: search.from }),
    ...(search.to !== undefined && { priceTo: search.to }),
    ...(search.since !== undefined && { yearFrom: search.since }),
    ...(search.until !== undefined && { yearTo: search.until }),
    ...(search.facts && { fact: search.facts }),
    ...(search.firmware && { newestFirmware: true }),
    ...(search.power && { power: search.power }),
    ...(search.review && { review: search.review }),
    ...(search.models && { perModel: search.models }),
    ...(search.fresh && { fresh: true }),
    ...(search.purpose && { purpose: search.purpose }),
    ...(search.group && { group: search.group }),
    ...(search.suite && { suite: search.suite }),
    ...(search.test && { test: search.test }),
    ...(search.metric && { metric: search.metric }),
    ...(search.every && { everyTest: true }),
    ...(search.typical ? { typical: true } : chosen ? { base: chosen } : {}),
    ...(search.per && { per: search.per }),
    ...(search.take && { take: search.take }),
    ...(search.without && { without: search.without }),
    ...(search.tests && { onlyTests: search.tests }),
  };
}
export type Ask = ReturnType<typeof askOf>;

/** The address at which the view asks the same: the other way round of {@link askOf}. */
export function searchOf(ask: Schemas['StandingsAsk']): StandingsSearch {
  return standingsSearch({
    classes: ask.deviceClass,
    only: ask.only,
    makers: ask.maker,
    from: ask.priceFrom,
    to: ask.priceTo,
    since: ask.yearFrom,
    until: ask.yearTo,
    facts: ask.fact,
    firmware: ask.newestFirmware,
    power: ask.power,
    review: ask.review,
    models: ask.perModel,
    fresh: ask.fresh,
    purpose: ask.purpose,
    group: ask.group,
    suite: ask.suite,
    test: ask.test,
    metric: ask.metric,
    every: ask.everyTest,
    base: ask.base,
    typical: ask.typical,
    per: ask.per,
    take: ask.take,
    without: ask.without,
    tests: ask.onlyTests,
  });
}

/** One key for everything that can be ranked: "group:STORAGE", "suite:3", "test:7", "metric:9", "every"; none for the tests in common use. */
export function scopeKey(search: StandingsSearch): string | undefined {
  if (search.metric) return `metric:${search.metric}`;
  if (search.test) return `test:${search.test}`;
  if (search.suite) return `suite:${search.suite}`;
  return search.group ? `group:${search.group}` : search.every ? 'every' : undefined;
}

export function scopeOf(
  key: string | undefined,
): Pick<StandingsSearch, 'group' | 'suite' | 'test' | 'metric' | 'every'> {
  const [kind, of] = (key ?? '').split(':');
  return {
    group: kind === 'group' ? TEST_GROUPS.find((g): g is TestGroup => g === of) : undefined,
    suite: kind === 'suite' ? Number(of) : undefined,
    test: kind === 'test' ? Number(of) : undefined,
    metric: kind === 'metric' ? Number(of) : undefined,
    every: kind === 'every' ? true : undefined,
  };
}
