import type { Schemas } from '../../api/client.ts';
import { couldBe } from '../../format/format.ts';
import { tone, verdictWords } from '../../format/verdict.ts';
import type { ComparedBy } from './asked.ts';
import type { NumberQuestion } from './questions.ts';

type Configuration = Schemas['ConfigurationRow'];

/** What the figures and numbers of a write-up answer, as far as claims can be held against it. */
export interface Evidence {
  comparisons: readonly { comparison: Schemas['Comparison']; by?: ComparedBy | undefined }[];
  standings: readonly Schemas['Standings'][];
}

/** A claim that the numbers do not carry. */
export interface BoldClaim {
  /** As it stands in the text. */
  said: string;
  /** Why it does not hold, in words. */
  why: string;
  /** What would stand there instead, with the number it stands for. */
  instead?: { words: string; number: NumberQuestion } | undefined;
}

const FASTER = 'faster|slower|quicker|better|worse|higher|lower|more|less|longer|shorter|cooler|hotter|quieter|louder';
/** "21 % faster", "12 percent less". */
const PERCENT = new RegExp(`(\\d+(?:[.,]\\d+)?)\\s*(?:%|per\\s?cent)\\s+(?:${FASTER})\\b`, 'giu');
/** "the best", "fastest", "the quickest of them". */
const BEST = /\b(?:the\s+)?(best|fastest|quickest|strongest|winner|leads|unbeaten|first place)\b/giu;
/** "as fast as", "on a par with", "level with". */
const EQUAL = /\bas (?:fast|quick|good|strong) as\b|\bon a par\b|\blevel with\b|\bthe same speed\b|\bmatches\b/giu;
/** A number of the ledger in a text: its words count, its address does not. */
const REFERENCE = /\[([^\]]*)\]\(number:[\w-]+\)/g;
/** A claim may be rounded. */
const ROUNDED = 0.6;

/** What of a text the numbers do not carry: beside a device that it names, held against what figures of this write-up answer. */
export function boldClaims(text: string, evidence: Evidence): BoldClaim[] {
  return text
    .replace(REFERENCE, '$1')
    .split(/(?<=[.!?])\s+|\n+/)
    .flatMap((sentence) => [
      ...matches(sentence, PERCENT).flatMap((m) => percentClaim(sentence, m, evidence)),
      ...matches(sentence, BEST).flatMap((m) => bestClaim(sentence, m[0], evidence)),
      ...matches(sentence, EQUAL).flatMap((m) => equalClaim(sentence, m[0], evidence)),
    ]);
}

function matches(sentence: string, pattern: RegExp): RegExpExecArray[] {
  return [...sentence.matchAll(pattern)];
}

/** Where a sentence names a model; −1 where it does not. */
function namedAt(sentence: string, c: Configuration): number {
  return sentence.toLowerCase().indexOf(c.model.toLowerCase());
}

interface Compared {
  ratio: number;
  low: number | undefined;
  high: number | undefined;
  verdict: NonNullable<Schemas['ComparedCell']['verdict']>;
  size: string;
  of: string;
  number: NumberQuestion;
}

/** The comparison that a sentence speaks of: one of its devices is named, and the test too where one is. */
function comparedIn(sentence: string, { comparisons }: Evidence): Compared | undefined {
  for (const { comparison, by } of comparisons) {
    const side = comparison.sides[0];
    if (!side || (namedAt(sentence, side.configuration) < 0 && namedAt(sentence, comparison.base) < 0)) continue;
    const asked = { configuration: side.configuration.id, base: comparison.base.id, ...(by && { by }) };
    const row = comparison.rows.find((r) => sentence.toLowerCase().includes(r.metric.test.toLowerCase()));
    const cell = row?.cells[0];
    if (row && cell?.ratio !== undefined && cell.verdict !== undefined)
      return {
        ratio: cell.ratio,
        low: cell.low,
        high: cell.high,
        verdict: cell.verdict,
        size: cell.size ?? '',
        of: row.metric.test,
        number: { of: 'ratio', metric: row.metric.id, ...asked },
      };
    const o = row ? undefined : side.overall;
    if (o)
      return {
        ratio: o.ratio,
        low: o.low,
        high: o.high,
        verdict: o.verdict,
        size: o.size,
        of: 'overall',
        number: { of: 'overall', ...asked },
      };
  }
  return undefined;
}

/** In per cent of the base or of the other, whichever way it is said. */
function percentsOf(ratio: number): number[] {
  return [100 * (ratio - 1), 100 * (1 - 1 / ratio), 100 * (1 / ratio - 1), 100 * (1 - ratio)].map(Math.abs);
}

function percentClaim(sentence: string, match: RegExpExecArray, evidence: Evidence): BoldClaim[] {
  const found = comparedIn(sentence, evidence);
  if (!found) return [];
  const claimed = Number(match[1]!.replace(',', '.'));
  if (tone(found.verdict) === 'unsure' || tone(found.verdict) === 'level')
    return [
      {
        said: match[0],
        why: `${found.of}, ${verdictWords(found.verdict)}: measured ${found.size}`,
        instead: { words: `${found.size}, ${verdictWords(found.verdict)}`, number: found.number },
      },
    ];
  const ways = percentsOf(found.ratio);
  const inInterval =
    found.low !== undefined &&
    found.high !== undefined &&
    percentsOf(found.low).some((low, i) => {
      const high = percentsOf(found.high!)[i]!;
      return claimed >= Math.min(low, high) - ROUNDED && claimed <= Math.max(low, high) + ROUNDED;
    });
  return inInterval || ways.some((w) => Math.abs(w - claimed) <= ROUNDED)
    ? []
    : [
        {
          said: match[0],
          why: `${found.of}, measured ${found.size}`,
          instead: { words: found.size, number: found.number },
        },
      ];
}

function bestClaim(sentence: string, said: string, { standings }: Evidence): BoldClaim[] {
  for (const standing of standings) {
    const row = standing.rows.find((r) => r.placeBest !== undefined && namedAt(sentence, r.configuration) >= 0);
    if (!row) continue;
    const worst = row.placeWorst ?? row.placeBest!;
    if (worst === 1) return [];
    const order = row.order ?? row.placeBest!;
    const range = couldBe(row.placeBest!, worst);
    return [
      {
        said,
        why: `${row.configuration.model} has place ${order} of ${standing.placed}${range === undefined ? '' : `, and could have ${range}`} (${standing.scope})`,
      },
    ];
  }
  return [];
}

function equalClaim(sentence: string, said: string, evidence: Evidence): BoldClaim[] {
  const found = comparedIn(sentence, evidence);
  if (!found || tone(found.verdict) === 'level') return [];
  return [
    {
      said,
      why: `${found.of}, ${tone(found.verdict) === 'unsure' ? 'too close to call, which is not the same as equal' : `measured ${found.size}`}`,
      instead: { words: found.size, number: found.number },
    },
  ];
}

/** The text with a claim replaced by what was measured. @param id of the number in the piece */
export function replaced(text: string, claim: BoldClaim, id: string): string {
  if (!claim.instead) return text;
  const put = `[${claim.instead.words}](number:${id})`;
  // A claim that is a number of the ledger already gives its place to the other number.
  const whole = [...text.matchAll(REFERENCE)].find((m) => m[1] === claim.said)?.[0];
  return text.replace(whole ?? claim.said, () => put);
}
