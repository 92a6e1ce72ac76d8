/** The one place where values become text. It scales and rounds; it computes nothing. */
import { decimalsOf, indexDecimals } from './digits.ts';

const GROUP = '\u202f';
const MINUS = '−';

/** Four significant digits, thousands in groups: 388.1, 1 540, 0.0123. */
export function number(value: number, digits = 4): string {
  if (!Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const size = Math.floor(Math.log10(Math.abs(value)));
  const decimals = Math.min(12, Math.max(0, digits - 1 - size));
  // Noughts that are not there are not shown: a typed 12 is 12, not 12.00.
  return fixed(value, exactDecimals(value, decimals));
}

function exactDecimals(value: number, most: number): number {
  for (let decimals = 0; decimals < most; decimals++)
    if (Math.abs(Number(value.toFixed(decimals)) - value) <= 1e-12 * Math.abs(value)) return decimals;
  return most;
}

/** With so many decimals, thousands in groups. */
export function fixed(value: number, decimals: number): string {
  const [whole, part] = Math.abs(value).toFixed(decimals).split('.') as [string, string | undefined];
  const grouped = whole.length > 3 ? whole.replace(/\B(?=(\d{3})+$)/g, GROUP) : whole;
  return `${value < 0 ? MINUS : ''}${grouped}${part ? `.${part}` : ''}`;
}

/** A whole number of things. */
export function count(value: number): string {
  return number(value, Math.max(1, Math.ceil(Math.log10(value + 1))));
}

/** A value in its unit. Never more digits than the step it was read in can show, where that is known. */
export function quantity(value: number, unit: string, resolution = 0): string {
  if (unit === 'B') return sizeInBytes(value);
  const text = resolution > 0 ? stepped(value, resolution) : number(value);
  return unit === '1' || unit === '' ? text : `${text} ${unit}`;
}

const STEPS = [
  ['KiB', 1024],
  ['kB', 1000],
] as const;

/** Four digits at most, and none below the step it was read in; a nought that was read is shown. */
function stepped(value: number, resolution: number): string {
  const size = value === 0 ? 0 : Math.floor(Math.log10(Math.abs(value)));
  return fixed(value, Math.max(0, Math.min(3 - size, Math.ceil(-Math.log10(resolution) - 1e-9))));
}

/**
 * A size in bytes, in the kind of prefix that it was meant in: 32 MB is no 31 250 KiB, and 4 KiB no 4.096 kB. Whole
 * numbers below a thousand of a decimal step are decimal, other whole numbers of a binary step binary.
 */
export function sizeInBytes(bytes: number): string {
  const [binary, decimal] = STEPS.map(([name, step]) => {
    const power = bytes < step ? 0 : Math.min(4, Math.floor(Math.log(bytes) / Math.log(step) + 1e-12));
    const names = ['B', name, ...['M', 'G', 'T'].map((p) => p + name.slice(1))];
    return { amount: bytes / step ** power, name: names[power]! };
  }) as [{ amount: number; name: string }, { amount: number; name: string }];
  // Where four digits do not say it exactly, nobody meant it in powers of two: 1500 bytes are 1.5 kB.
  const exact = Number(binary.amount.toPrecision(4)) === binary.amount;
  const best = Number.isInteger(decimal.amount) || !exact ? decimal : binary;
  return `${number(best.amount)} ${best.name}`;
}

/** A value of a metric of any kind: a check is passed or failed, a choice has its words. */
export function reading(
  value: number,
  metric: { unit?: string | undefined; kind?: string | undefined; choices?: readonly string[] | undefined },
  resolution = 0,
): string {
  if (metric.kind === 'CHECK') return value === 1 ? 'pass' : 'fail';
  if (metric.kind === 'CHOICE') return metric.choices?.[Math.round(value) - 1] ?? number(value);
  return quantity(value, metric.unit ?? '1', resolution);
}

/** A size of a file. */
export function bytes(size: number): string {
  return size < 1000 ? `${size} B` : size < 1e6 ? `${number(size / 1e3, 3)} kB` : `${number(size / 1e6, 3)} MB`;
}

/** An index, with as many decimals as its interval is worth. */
export function index(value: number, low?: number, high?: number): string {
  return value > 0 && value < 0.1 ? number(value, 2) : fixed(value, indexDecimals(value, low, high));
}

/** The two ends of an interval, with as many decimals as their index: it is not symmetric, so never "±". */
export function ends(low: number, high: number): string {
  const decimals = decimalsOf(low, high);
  return `${fixed(low, decimals)} to ${fixed(high, decimals)}`;
}

export function percent(share: number, decimals = 0): string {
  return `${(100 * share).toFixed(decimals)}\u00a0%`;
}

/** A ratio as per cent of its base: 0.62 is 62 %. */
export function percentOf(ratio: number): string {
  return `${number(100 * ratio, 3)}\u00a0%`;
}

/** How a fact's value relates to the base's: "× 2", "+1.5 °C", "newer". */
export function factStep(
  step: { how: 'RATIO' | 'SHIFT' | 'NEWER' | 'OLDER' | 'OTHER'; amount?: number },
  unit: string,
): string {
  if (step.how === 'RATIO') return `× ${number(step.amount ?? NaN, 3)}`;
  if (step.how === 'SHIFT')
    return `${(step.amount ?? 0) > 0 ? '+' : ''}${number(step.amount ?? NaN, 3)} ${unit === 'Cel' ? '°C' : unit}`;
  return step.how === 'OTHER' ? '' : step.how.toLowerCase();
}

/** What a place could be, where that is more than one: "2 to 7". */
export function couldBe(best: number, worst: number): string | undefined {
  return best === worst ? undefined : `${best} to ${worst}`;
}

/** "4", or "4 (2 to 7)" where noise leaves more than one. Saved before places had an order, it is the range alone. */
export function place(order: number | undefined, best: number, worst: number): string {
  const range = couldBe(best, worst);
  return order === undefined ? (range ?? String(best)) : range === undefined ? String(order) : `${order} (${range})`;
}

/** A place in two: what stands large, and what stands small beside it. Saved before places had an order, it is the range alone. */
export function placeParts(row: { order?: number; placeBest?: number; placeWorst?: number }): [string, string] {
  if (row.placeBest === undefined) return ['–', ''];
  const range = couldBe(row.placeBest, row.placeWorst ?? row.placeBest) ?? '';
  return row.order === undefined ? [range || String(row.placeBest), ''] : [String(row.order), range];
}

/** The same of a line of a standing; "–" where it has no place. */
export function placeOf(row: { order?: number; placeBest?: number; placeWorst?: number }): string {
  return row.placeBest === undefined ? '–' : place(row.order, row.placeBest, row.placeWorst ?? row.placeBest);
}

/** A length of time in the words a person would use: "40 s", "3 min", "1 h 20 min". */
export function duration(ms: number): string {
  const seconds = Math.round(ms / 1000);
  if (seconds < 90) return `${seconds} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 90 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** "12:34" left of something. */
export function countdown(ms: number): string {
  const seconds = Math.max(0, Math.floor(ms / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

export function day(iso: string): string {
  return DAY.format(new Date(iso));
}

export function moment(iso: string): string {
  return `${day(iso)}, ${TIME.format(new Date(iso))}`;
}

/** The time of day: "17:40". */
export function clockTime(ms: number): string {
  return TIME.format(new Date(ms));
}

export function price(amount: number, currency: string): string {
  return `${fixed(amount, Number.isInteger(amount) ? 0 : 2)} ${currency}`;
}

export type DeviceClass = 'DESKTOP' | 'MINI' | 'LAPTOP' | 'TABLET' | 'PHONE' | 'BOARD';
export const DEVICE_CLASSES: readonly DeviceClass[] = ['DESKTOP', 'MINI', 'LAPTOP', 'TABLET', 'PHONE', 'BOARD'];
const PLURALS: Record<DeviceClass, string> = {
  DESKTOP: 'desktops',
  MINI: 'minis',
  LAPTOP: 'laptops',
  TABLET: 'tablets',
  PHONE: 'phones',
  BOARD: 'boards',
};

export function deviceClass(c: DeviceClass): string {
  return c.toLowerCase();
}

/** "laptops", "laptops and tablets", "desktops, minis and boards", or everything. */
export function classes(chosen: readonly DeviceClass[]): string {
  if (chosen.length === 0 || chosen.length === DEVICE_CLASSES.length) return 'every class of device';
  const names = DEVICE_CLASSES.filter((c) => chosen.includes(c)).map((c) => PLURALS[c]);
  return names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}

const GROUPS = {
  PROCESSOR: 'Processor',
  MEMORY: 'Memory',
  GRAPHICS: 'Graphics',
  STORAGE: 'Storage',
  BROWSER: 'Browser',
  NETWORK: 'Network',
  VIDEO: 'Video',
  EVERYDAY: 'Everyday',
  BODY: 'Body',
} as const;
export type TestGroup = keyof typeof GROUPS;
export const TEST_GROUPS = Object.keys(GROUPS) as TestGroup[];

/** "more is better", in the words of a sentence. */
export function direction(d: 'MORE_IS_BETTER' | 'LESS_IS_BETTER'): string {
  return d === 'MORE_IS_BETTER' ? 'more is better' : 'less is better';
}

export function unitName(unit: string): string {
  return unit === '1' || unit === '' ? 'points' : unit;
}

export function testGroup(group: TestGroup): string {
  return GROUPS[group];
}

const REASONS: Record<string, string> = {
  NOT_SUPPORTED: 'not supported here',
  CONTEXT_LOST: 'graphics context lost',
  NO_SPACE: 'no space left',
  WRITE_LIMIT: 'write limit reached',
  NEEDS_SECURE_CONNECTION: 'needs a secure connection',
  WRONG_ANSWER: 'wrong answer, so the score does not count',
  ERROR: 'it stopped with an error',
  OUT_OF_MEMORY: 'not enough memory',
  TOO_SLOW: 'too slow to finish',
  HIDDEN: 'the page was hidden or the screen slept',
  RESIZED: 'the window was resized',
  RELOADED: 'the page was reloaded',
  STOPPED_BY_REVIEWER: 'stopped by the reviewer',
  STOPPED_AT_DEVICE: 'stopped at the device',
  OTHER: 'another reason',
};
export function reason(code: string): string {
  return REASONS[code] ?? code.toLowerCase().replaceAll('_', ' ');
}

const MARKS: Record<string, string> = {
  STRAY: 'stray',
  HELD: 'held',
  TOO_SHORT: 'too short',
  WARM_UP: 'warm-up',
  DISTURBED: 'disturbed',
  THROTTLED: 'throttled',
  ANOTHER_DAY: 'another day',
};
export function mark(kind: string): string {
  return MARKS[kind] ?? kind.toLowerCase();
}

/** Why a mark is there, as a sentence. */
export function markReason(m: { kind: string; rate?: number | undefined; words?: string | undefined }): string {
  if (m.kind === 'DISTURBED') return m.words ?? 'The device was disturbed during this run.';
  if (m.kind === 'THROTTLED')
    return `The device became slower as it worked${m.rate === undefined ? '' : `, from ${number(m.rate, 2)} s on`}, and did not come back: it throttled.`;
  if (m.kind === 'ANOTHER_DAY')
    return m.words ?? 'This session differs far more from the others than sessions do elsewhere.';
  if (m.kind === 'STRAY') return 'It lies far from the other readings of its session.';
  if (m.kind === 'HELD')
    return `The display holds it: the rate is that of ${m.rate === undefined ? 'the display' : `${number(m.rate, 3)} Hz`}, hardly spread. Totals leave it out.`;
  if (m.kind === 'TOO_SHORT')
    return 'The time is under 100 steps of its clock, so rounding alone moves it by half a per cent.';
  return 'In the sessions of this test the first run is mostly the worst; it may be a warm-up.';
}

const STATES: Record<string, string> = {
  OK: 'ok',
  FAILED: 'failed',
  COULD_NOT_RUN: 'could not run',
  STOPPED: 'stopped',
};
export function runState(state: string): string {
  return STATES[state] ?? state;
}

export const errorWords = (error: unknown): string => (error instanceof Error ? error.message : String(error));
