import { TAKES } from '../format/takes.ts';
import { DEVICE_CLASSES, TEST_GROUPS, type DeviceClass } from '../format/format.ts';

/**
 * What a view's sentence says is its address. An address may be typed by hand, so whatever makes no sense becomes
 * undefined: left out, it would come back from the address as it was typed.
 */
type Raw = Record<string, unknown>;

function id(value: unknown): number | undefined {
  const n = Number(value);
  return Number.isSafeInteger(n) && n > 0 ? n : undefined;
}

function text(value: unknown): string | undefined {
  return typeof value === 'string' && value !== ''
    ? value.slice(0, 120)
    : typeof value === 'number'
      ? String(value)
      : undefined;
}

function number(value: unknown, least: number, most: number): number | undefined {
  return typeof value === 'number' && value >= least && value <= most ? value : undefined;
}

function dayOf(value: unknown): string | undefined {
  return typeof value === 'string' && /^\d{4}-\d\d-\d\d$/.test(value) && !Number.isNaN(Date.parse(value))
    ? value
    : undefined;
}

function classList(value: unknown): DeviceClass[] | undefined {
  const list = Array.isArray(value) ? value : typeof value === 'string' ? [value] : [];
  const known = DEVICE_CLASSES.filter((c) => list.includes(c));
  return known.length > 0 ? known : undefined;
}

function idList(value: unknown, most = 8): number[] | undefined {
  const list = (Array.isArray(value) ? value : []).map(id).filter((n) => n !== undefined);
  return list.length > 0 ? [...new Set(list)].slice(0, most) : undefined;
}

function textList(value: unknown, most: number): string[] | undefined {
  const list = (Array.isArray(value) ? value : []).map(text).filter((t) => t !== undefined);
  return list.length > 0 ? [...new Set(list)].slice(0, most) : undefined;
}

function oneOf<T>(value: unknown, allowed: readonly T[]): T | undefined {
  return allowed.find((a) => a === value);
}

/** For those who write addresses, every part may be left out. */
function lax<T extends object>(params: T): { [K in keyof T]?: T[K] } {
  return params;
}

export const LEDGER_STATES = ['COUNTED', 'SET_ASIDE', 'FAILED', 'COULD_NOT_RUN', 'STOPPED'] as const;
export const RUNS = [1, 2, 3, 5, 10] as const;
export const TIMED_MS = [100, 500, 1000, 3000, 10_000, 30_000] as const;
export const PAUSE_MS = [0, 2000, 5000, 15_000, 60_000] as const;

export const SHELF_ORDERS = ['NAME', 'CLASS', 'RELEASED', 'PRICE', 'CONFIGURATIONS'] as const;
export const COMPARE_ORDERS = ['group', 'size', 'certainty'] as const;
export const LEDGER_ORDERS = ['TIME', 'MODEL', 'TEST', 'VALUE', 'RUN', 'PERSON', 'STATE'] as const;

export const RELATIONS = ['KNOWN', 'IS', 'AT_LEAST', 'AT_MOST'] as const;

export const shelfSearch = (raw: Raw) =>
  lax({
    q: text(raw['q']),
    classes: classList(raw['classes']),
    page: id(raw['page']),
    maker: text(raw['maker']),
    since: id(raw['since']),
    dearest: id(raw['dearest']),
    retired: raw['retired'] === true ? true : undefined,
    fact: text(raw['fact']),
    relation: oneOf(raw['relation'], RELATIONS),
    value: text(raw['value']),
    sort: oneOf(raw['sort'], SHELF_ORDERS),
    falling: typeof raw['falling'] === 'boolean' ? raw['falling'] : undefined,
  });
export const byHandSearch = (raw: Raw) => lax({ configuration: id(raw['configuration']), plan: id(raw['plan']) });
export const plansSearch = (raw: Raw) =>
  lax({
    edit: id(raw['edit']),
    copy: id(raw['copy']),
    make: raw['make'] === true ? true : undefined,
    /** Minutes at hand, where the view says which tests are worth them. */
    hours: id(raw['hours']),
    purpose: id(raw['purpose']),
    on: oneOf(raw['on'], DEVICE_CLASSES),
    /** Tests that are taken, or left out, whatever they tell. */
    must: idList(raw['must'], 200),
    never: idList(raw['never'], 200),
  });
export const configureSearch = (raw: Raw) => lax({ unit: id(raw['unit']), from: id(raw['from']) });
export const differenceSearch = (raw: Raw) => lax({ ids: idList(raw['ids']), base: id(raw['base']) });
export const benchSearch = (raw: Raw) =>
  lax({
    plan: id(raw['plan']),
    must: raw['must'] === true ? true : undefined,
    runs: oneOf(raw['runs'], RUNS),
    timed: oneOf(raw['timed'], TIMED_MS),
    pause: oneOf(raw['pause'], PAUSE_MS),
  });
export const ledgerSearch = (raw: Raw) =>
  lax({
    model: id(raw['model']),
    configuration: id(raw['configuration']),
    test: id(raw['test']),
    session: id(raw['session']),
    state: oneOf(raw['state'], LEDGER_STATES),
    version: id(raw['version']),
    person: text(raw['person']),
    from: dayOf(raw['from']),
    to: dayOf(raw['to']),
    fact: text(raw['fact']),
    relation: oneOf(raw['relation'], RELATIONS),
    value: text(raw['value']),
    page: id(raw['page']),
    sort: oneOf(raw['sort'], LEDGER_ORDERS),
    falling: typeof raw['falling'] === 'boolean' ? raw['falling'] : undefined,
    reading: id(raw['reading']),
  });
export type LedgerSearch = ReturnType<typeof ledgerSearch>;
export const logSearch = (raw: Raw) =>
  lax({
    person: text(raw['person']),
    subject: text(raw['subject']),
    from: text(raw['from']),
    to: text(raw['to']),
    page: id(raw['page']),
  });
export const keptSearch = (raw: Raw) => lax({ page: id(raw['page']) });
export const FORMS = ['rails', 'list', 'charts', 'against', 'lines'] as const;
export const POWERS = ['MAINS', 'BATTERY'] as const;
export const REVIEWS = ['WAITING', 'IN_REVIEW', 'REVIEWED'] as const;
export const PER_MODEL = ['NEWEST', 'BEST', 'FACTORY'] as const;
const yes = (value: unknown) => (value === true ? true : undefined);
export const standingsSearch = (raw: Raw) =>
  lax({
    classes: classList(raw['classes']),
    /** These configurations alone. */
    only: idList(raw['only'], 60),
    /** These tests alone, such as a plan's. */
    tests: idList(raw['tests'], 200),
    /** One of them stands out. */
    lit: id(raw['lit']),
    makers: textList(raw['makers'], 20),
    from: number(raw['from'], 0, 1e9),
    to: number(raw['to'], 0, 1e9),
    since: number(raw['since'], 1950, 2200),
    until: number(raw['until'], 1950, 2200),
    facts: textList(raw['facts'], 8),
    firmware: yes(raw['firmware']),
    power: oneOf(raw['power'], POWERS),
    review: oneOf(raw['review'], REVIEWS),
    models: oneOf(raw['models'], PER_MODEL),
    fresh: yes(raw['fresh']),
    purpose: id(raw['purpose']),
    group: oneOf(raw['group'], TEST_GROUPS),
    suite: id(raw['suite']),
    test: id(raw['test']),
    metric: id(raw['metric']),
    every: yes(raw['every']),
    base: id(raw['base']),
    typical: yes(raw['typical']),
    per: text(raw['per']),
    take: oneOf(raw['take'], TAKES),
    without: textList(raw['without'], 30),
    form: oneOf(raw['form'], FORMS),
    against: text(raw['against']),
    /** Prices that are tried: a configuration and an amount. */
    tried: textList(raw['tried'], 8),
    why: id(raw['why']),
    weigh: yes(raw['weigh']),
  });
export type StandingsSearch = ReturnType<typeof standingsSearch>;
/** Who a report card is held against, beside what a standing is asked. */
export const cardSearch = (raw: Raw) => lax({ ...standingsSearch(raw), beside: id(raw['beside']) });
export type CardSearch = ReturnType<typeof cardSearch>;
export const TREND_FORMS = ['plot', 'panels', 'table'] as const;
export const trendsSearch = (raw: Raw) =>
  lax({
    model: id(raw['model']),
    unit: id(raw['unit']),
    along: text(raw['along']),
    purpose: id(raw['purpose']),
    group: oneOf(raw['group'], TEST_GROUPS),
    suite: id(raw['suite']),
    matters: number(raw['matters'], 0.1, 1000),
    without: textList(raw['without'], 30),
    form: oneOf(raw['form'], TREND_FORMS),
    from: text(raw['from']),
    /** Configurations from which it was opened. */
    between: idList(raw['between']),
    /** Others beside it: "model" or "model-unit". */
    with: textList(raw['with'], 5),
    /** The test whose lines stand beside one another. */
    metric: id(raw['metric']),
    even: yes(raw['even']),
    fold: yes(raw['fold']),
    side: id(raw['side']),
    lit: id(raw['lit']) ?? oneOf(raw['lit'], TEST_GROUPS),
  });
export type TrendsSearch = ReturnType<typeof trendsSearch>;
const SIZES = ['percent', 'times', 'unit'] as const;
export const compareSearch = (raw: Raw) =>
  lax({
    ids: idList(raw['ids']),
    base: id(raw['base']),
    purpose: id(raw['purpose']),
    group: oneOf(raw['group'], TEST_GROUPS),
    suite: id(raw['suite']),
    matters: number(raw['matters'], 0.1, 1000),
    per: text(raw['per']),
    sizes: oneOf(raw['sizes'], SIZES),
    without: textList(raw['without'], 30),
    take: oneOf(raw['take'], TAKES),
    baseTake: oneOf(raw['baseTake'], TAKES),
    order: oneOf(raw['order'], COMPARE_ORDERS),
    open: id(raw['open']),
    factors: raw['factors'] === true ? true : undefined,
    first: text(raw['first']),
    second: text(raw['second']),
    cells: id(raw['cells']),
  });

/** Whether this window is the one of whoever speaks, and not the one that is looked at. */
export function stageSearch(raw: Raw): { desk?: true | undefined } {
  return { desk: raw.desk === true || raw.desk === 'true' ? true : undefined };
}
