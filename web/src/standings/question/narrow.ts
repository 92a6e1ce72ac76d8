import { price } from '../../format/format.ts';
import type { StandingsSearch } from '../../shell/search-params.ts';

/** A condition on a fact as the address has it: "memory.size~AT_LEAST~8 GB". */
export interface Condition {
  key: string;
  relation: 'KNOWN' | 'IS' | 'AT_LEAST' | 'AT_MOST';
  value: string;
}
const RELATIONS = { KNOWN: 'known', IS: '', AT_LEAST: 'at least', AT_MOST: 'at most' } as const;

export function readCondition(text: string): Condition {
  const [key = '', relation = 'KNOWN', ...rest] = text.split('~');
  return {
    key,
    relation: relation in RELATIONS ? (relation as Condition['relation']) : 'KNOWN',
    value: rest.join('~'),
  };
}

export function writeCondition(c: Condition): string {
  return `${c.key}~${c.relation}~${c.value}`;
}

const REVIEW = { WAITING: 'waiting for review', IN_REVIEW: 'in review', REVIEWED: 'reviewed' } as const;
const MODELS = {
  NEWEST: 'the newest configuration of each model',
  BEST: 'the best configuration of each model',
  FACTORY: 'each model as it came',
} as const;

/** Who is in, as a part of the sentence. @param labels of facts by key. @param currency of prices */
export function narrowWords(search: StandingsSearch, labels: ReadonlyMap<string, string>, currency: string): string {
  const of = (n: number) => price(n, currency).trim();
  const parts = [
    search.only && `${search.only.length} picked by hand`,
    search.tests && `by ${search.tests.length} ${search.tests.length === 1 ? 'test' : 'tests'} of a list`,
    search.makers && `by ${search.makers.length < 4 ? search.makers.join(' or ') : `${search.makers.length} makers`}`,
    range(
      search.from,
      search.to,
      (a, b) => `for ${of(a)} to ${of(b)}`,
      (a) => `from ${of(a)} on`,
      (b) => `up to ${of(b)}`,
    ),
    range(
      search.since,
      search.until,
      (a, b) => (a === b ? `released ${a}` : `released ${a} to ${b}`),
      (a) => `released ${a} or later`,
      (b) => `released ${b} or before`,
    ),
    ...(search.facts ?? [])
      .map(readCondition)
      .map(
        (c) =>
          `with ${(labels.get(c.key) ?? c.key).toLowerCase()} ${c.relation === 'KNOWN' ? 'known' : `${RELATIONS[c.relation]} ${c.value}`.trim()}`,
      ),
    search.power && (search.power === 'MAINS' ? 'on mains' : 'on battery'),
    search.review && REVIEW[search.review],
    search.firmware && !search.fresh && 'newest firmware only',
    search.fresh && 'nothing stale',
  ].filter((p): p is string => typeof p === 'string');
  const which = search.models ? MODELS[search.models] : parts.length > 0 ? '' : 'every configuration';
  return [which, ...parts].filter((p) => p !== '').join(', ');
}

function range(
  from: number | undefined,
  to: number | undefined,
  both: (a: number, b: number) => string,
  lower: (a: number) => string,
  upper: (b: number) => string,
): string | undefined {
  if (from !== undefined && to !== undefined) return both(from, to);
  return from !== undefined ? lower(from) : to !== undefined ? upper(to) : undefined;
}
