import { byWords, type ComparedBy } from './asked.ts';
import type { Schemas } from '../../api/client.ts';
import { formatRatio } from '../../format/ratio.ts';
import { missingWords, verdictWords, type Cell } from '../../format/verdict.ts';
import { decimalsOf } from '../../format/digits.ts';
import { fixed, number, quantity, reading } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';

type Metric = Schemas['MetricRow'];
type OneOf = Schemas['OneOf'];
type Configuration = Schemas['ConfigurationRow'];

/** A number as its question answers it now. */
export interface LiveNumber {
  /** How it may be written, the usual way first. */
  forms: string[];
  /** The amounts that may stand for it in a text, whatever the words around them: 1.13, 13 (per cent more) and so on. */
  amounts: number[];
  /** What it is, of whom and against what, how sure. */
  says: string;
  value?: number | undefined;
  unit?: string | undefined;
  /** Better, worse, neither; where a comparison says so. */
  verdict?: 'better' | 'worse' | 'neither' | undefined;
  /** Whether the value itself rose or fell. */
  rose?: boolean | undefined;
}

const MATERIALITY = 1.03;

/** A value with as many decimals as its interval is worth. */
export function valued(of: OneOf, metric: Metric): string {
  if (of.value === undefined) return '–';
  if (metric.kind === 'CHECK' || metric.kind === 'CHOICE' || metric.unit === 'B') return reading(of.value, metric);
  const size = of.value === 0 ? 0 : Math.floor(Math.log10(Math.abs(of.value)));
  const decimals =
    of.low === undefined || of.high === undefined
      ? Math.max(0, 2 - size)
      : Math.min(decimalsOf(of.low, of.high), Math.max(0, 3 - size));
  const text = fixed(of.value, decimals);
  return metric.unit === '1' || metric.unit === '' ? text : `${text} ${metric.unit === 'Cel' ? '°C' : metric.unit}`;
}

const runs = (n: number) => `${n} ${n === 1 ? 'run' : 'runs'}`;

export function liveValue(of: OneOf, metric: Metric, configuration: Configuration): LiveNumber | undefined {
  if (of.value === undefined) return undefined;
  const interval =
    of.low !== undefined && of.high !== undefined && of.low !== of.high
      ? `, 95 % interval ${quantity(of.low, metric.unit)} to ${quantity(of.high, metric.unit)}`
      : '';
  return {
    forms: [valued(of, metric)],
    amounts: [of.value],
    says: `${metric.test}${metric.name === metric.test || metric.main ? '' : `, ${metric.name}`}: ${named(configuration)}, ${runs(of.runs)}${interval}${of.atLeast ? ', capped by the display, so at least this' : ''}${of.unmeasured ? ', on a spread that is only usual' : ''}.`,
    value: of.value,
    unit: metric.unit,
  };
}

/** A ratio in every way that it is said: 1.13 times as good; 13 % more; and for times, 12 % less time. */
function amountsOf(ratio: number): number[] {
  return [ratio, 100 * (ratio - 1), 100 * (1 - 1 / ratio), 1 / ratio, 100 * ratio, 100 / ratio].flatMap((a) => [a, -a]);
}

export function liveRatio(
  cell: Cell,
  metric: Metric,
  configuration: Configuration,
  comparison: Schemas['Comparison'],
  by?: ComparedBy,
): LiveNumber | undefined {
  if (cell.ratio === undefined) return undefined;
  const base = comparison.base;
  const sure = cell.verdict === undefined ? '' : `, ${verdictWords(cell.verdict)}`;
  return {
    forms: [formatRatio(cell.ratio, MATERIALITY), ...(cell.size ? [cell.size] : [])],
    amounts: amountsOf(cell.ratio),
    says: `${metric.test}: ${toldApart(configuration, [configuration, base])} against ${toldApart(base, [configuration, base])}${cell.low !== undefined && cell.high !== undefined ? `, 95 % interval ${formatRatio(cell.low, MATERIALITY)} to ${formatRatio(cell.high, MATERIALITY)}` : ''}${sure}${narrowed(by, comparison)}.`,
    value: cell.ratio,
    unit: '1',
    verdict: stand(cell.verdict),
    rose: metric.direction === 'MORE_IS_BETTER' ? cell.ratio > 1 : cell.ratio < 1,
  };
}

function stand(verdict: Cell['verdict']): LiveNumber['verdict'] {
  if (verdict === undefined) return undefined;
  return verdict.endsWith('GAIN') ? 'better' : verdict.endsWith('LOSS') ? 'worse' : 'neither';
}

function narrowed(by: ComparedBy | undefined, comparison: Schemas['Comparison']): string {
  const words = byWords(by, comparison);
  return words && `; ${words}`;
}

export function liveOverall(
  side: Schemas['Side'],
  comparison: Schemas['Comparison'],
  by?: ComparedBy,
): LiveNumber | undefined {
  const o = side.overall;
  if (!o) return undefined;
  const { base, purpose } = comparison;
  return {
    forms: [
      formatRatio(o.ratio, MATERIALITY),
      `${number(100 * Math.abs(o.ratio - 1), 2)} % ${o.ratio >= 1 ? 'better' : 'worse'}`,
    ],
    amounts: amountsOf(o.ratio),
    says: `Overall, ${purpose}: ${toldApart(side.configuration, [side.configuration, base])} against ${toldApart(base, [side.configuration, base])} over ${o.shared} shared tests, 95 % interval ${formatRatio(o.low, MATERIALITY)} to ${formatRatio(o.high, MATERIALITY)}, ${verdictWords(o.verdict)}, ${o.days}${narrowed(by, comparison)}.`,
    value: o.ratio,
    unit: '1',
    verdict: stand(o.verdict),
  };
}

export function liveFact(page: Schemas['ConfigurationPage'], key: string): LiveNumber | undefined {
  const fact = page.facts.find((f) => f.key === key);
  if (!fact) return undefined;
  const amount = /-?\d[\d\u202f]*(?:\.\d+)?/.exec(fact.shown)?.[0];
  return {
    forms: [fact.shown],
    amounts: amount ? [Number(amount.replaceAll('\u202f', ''))] : [],
    says: `${fact.label} of ${named(page.configuration)}.`,
  };
}

/** Why there is no number. */
export function missing(of: OneOf | Cell | undefined): string {
  if (!of) return 'it is not there any more';
  if ('why' in of && of.why) return of.why;
  return 'ended' in of ? missingWords(of as Cell) || 'there is no score' : 'there is no score';
}

/** A name for one more number of a text. */
export function nextNumber(numbers: Readonly<Record<string, unknown>> | undefined): string {
  const taken = Object.keys(numbers ?? {}).map((k) => Number(/^n(\d+)$/.exec(k)?.[1] ?? 0));
  return `n${1 + Math.max(0, ...taken)}`;
}

/** The first number in words, with the decimals it is written with. */
export function written(words: string): { amount: number; decimals: number } | undefined {
  const found = /[-−]?\d[\d\u202f\u00a0 ]*(?:[.,]\d+)?/.exec(words)?.[0];
  if (found === undefined) return undefined;
  const plain = found
    .replaceAll(/[\u202f\u00a0 ]/g, '')
    .replace('−', '-')
    .replace(',', '.');
  return { amount: Number(plain), decimals: plain.split('.')[1]?.length ?? 0 };
}

/** Whether words say what is measured now: the same number at the digits it is written with, or the same words. */
export function agrees(words: string, now: LiveNumber): boolean {
  if (now.forms.includes(words.trim())) return true;
  const said = written(words);
  // Words without a number are the writer's own.
  if (said === undefined) return now.amounts.length > 0 || now.forms.length === 0;
  // A ratio is meant as it is: turned round it would agree with its own opposite.
  const meant = words.includes('×') && now.value !== undefined ? [now.value] : now.amounts;
  return meant.some((a) => Math.abs(a).toFixed(said.decimals) === Math.abs(said.amount).toFixed(said.decimals));
}

const UP = /\b(more|higher|longer|larger|heavier|louder|warmer|hotter)\b/i;
const DOWN = /\b(less|lower|shorter|smaller|lighter|quieter|cooler|fewer)\b/i;
const GOOD = /\b(faster|better|quicker|ahead|stronger)\b/i;
const BAD = /\b(slower|worse|behind|weaker)\b/i;
const LEVEL = /\b(level|equal|the same|no difference)\b/i;

/** What words around a number claim that it does not say. */
export function contradiction(around: string, now: LiveNumber): string | undefined {
  const { verdict, rose } = now;
  if (verdict !== undefined) {
    const claimed = GOOD.test(around) ? 'better' : BAD.test(around) ? 'worse' : undefined;
    if (claimed && verdict === 'neither') return `says “${claimed}”, and the numbers are too close to call`;
    if (claimed && claimed !== verdict) return `says “${claimed}”, and the numbers say ${verdict}`;
    if (LEVEL.test(around) && verdict !== 'neither') return `says they are level, and the numbers say ${verdict}`;
  }
  if (rose !== undefined && UP.test(around) !== DOWN.test(around)) {
    if (UP.test(around) && !rose) return 'says “more”, and the value is lower';
    if (DOWN.test(around) && rose) return 'says “less”, and the value is higher';
  }
  return undefined;
}

const REFERENCE = /\[([^\]]*)\]\(number:([\w-]+)\)/g;

export interface Reference {
  id: string;
  words: string;
  /** The words it stands in: from the end of the sentence before to a few words behind it. */
  around: string;
}

/** The numbers of a text, in order. */
export function references(text: string): Reference[] {
  return [...text.matchAll(REFERENCE)].map((m) => {
    const before = text
      .slice(Math.max(0, m.index - 40), m.index)
      .split(/[.;:!?]\s|\n/)
      .at(-1)!;
    const after = text.slice(m.index + m[0].length, m.index + m[0].length + 40).split(/[.;:!?,]\s|\n|\band\b/)[0]!;
    return {
      id: m[2]!,
      words: m[1]!,
      around: `${before.replace(REFERENCE, ' ')} ${m[1]!} ${after.replace(REFERENCE, ' ')}`,
    };
  });
}

/** The text with other words for one of its numbers. */
export function withWords(text: string, id: string, words: string): string {
  return text.replace(REFERENCE, (all, _old: string, of: string) => (of === id ? `[${words}](number:${id})` : all));
}

/** The text without one of its numbers: its words stay. */
export function withoutNumber(text: string, id: string): string {
  return text.replace(REFERENCE, (all, old: string, of: string) => (of === id ? old : all));
}

/** Plain numbers in a text that are no reference yet, with where they stand. */
export function plainNumbers(text: string): { words: string; at: number }[] {
  const blank = text.replace(REFERENCE, (all) => ' '.repeat(all.length));
  return [...blank.matchAll(/\d+(?:[.,]\d+)?(?:[\u202f ]?(?:×|%|[A-Za-z°]{1,4}(?:\/s)?))?/g)].map((m) => ({
    words: m[0],
    at: m.index,
  }));
}
