import type { Schemas } from '../api/client.ts';
import { number, quantity, reason, runState } from './format.ts';
import { times } from './ratio.ts';

export type Cell = Schemas['ComparedCell'];
export type Verdict = NonNullable<Cell['verdict']>;
/** How a verdict is shown, besides its words: nothing is said by colour alone. */
export type Tone = 'gain' | 'loss' | 'level' | 'unsure';

const WORDS: Record<Verdict, string> = {
  CLEAR_GAIN: 'clear gain',
  CLEAR_LOSS: 'clear loss',
  SMALL_GAIN: 'clear gain, small',
  SMALL_LOSS: 'clear loss, small',
  PROBABLY_GAIN: 'probably a gain',
  PROBABLY_LOSS: 'probably a loss',
  PROBABLY_LEVEL: 'probably level',
  LEVEL: 'level',
  CANNOT_TELL: 'too close to call',
};
export const VERDICTS = Object.keys(WORDS) as Verdict[];

export function verdictWords(v: Verdict): string {
  return WORDS[v];
}

/** How sure, to follow a size: "12 % higher, probably". */
const SURE: Record<Verdict, string> = {
  CLEAR_GAIN: 'clear',
  CLEAR_LOSS: 'clear',
  SMALL_GAIN: 'clear, small',
  SMALL_LOSS: 'clear, small',
  PROBABLY_GAIN: 'probably',
  PROBABLY_LOSS: 'probably',
  PROBABLY_LEVEL: 'probably level',
  LEVEL: 'level',
  CANNOT_TELL: 'too close to call',
};

export function howSure(v: Verdict): string {
  return SURE[v];
}

/** How sizes are said: in per cent of the base, as times of it, or in the test's own unit. */
export type Sizes = 'times' | 'unit';

/** A size by itself: "12.0 % higher", "1.12×", "16 s sooner", "48 points more". */
export function sizeWords(
  cell: Pick<Cell, 'size' | 'ratio' | 'apart'>,
  metric: { unit: string; direction: string },
  sizes: Sizes | undefined,
): string | undefined {
  if (sizes === 'times' && cell.ratio !== undefined) return times(cell.ratio);
  if (sizes !== 'unit' || !cell.apart) return cell.size;
  const amount = quantity(Math.abs(cell.apart), metric.unit);
  const time = metric.direction === 'LESS_IS_BETTER' && TIMES.has(metric.unit);
  if (time) return `${amount} ${cell.apart > 0 ? 'later' : 'sooner'}`;
  return `${amount} ${cell.apart < 0 ? 'less' : 'more'}`;
}
const TIMES = new Set(['ns', 'us', 'µs', 'ms', 's', 'min', 'h']);

/** The answer in words: "12.0 % higher, probably". */
export function answer(cell: Pick<Cell, 'size' | 'verdict'>, size = cell.size): string {
  if (cell.verdict === undefined) return size ?? '';
  return size === undefined ? WORDS[cell.verdict] : `${size}, ${SURE[cell.verdict]}`;
}

const ONE: Record<Verdict, string> = {
  ...WORDS,
  SMALL_GAIN: 'small gain',
  SMALL_LOSS: 'small loss',
  PROBABLY_GAIN: 'probable gain',
  PROBABLY_LOSS: 'probable loss',
};

/** "3 clear gains", "1 level". */
export function countedVerdict(v: Verdict, n: number): string {
  return `${n} ${ONE[v]}${n === 1 ? '' : v.endsWith('LOSS') ? 'es' : v.endsWith('GAIN') ? 's' : ''}`;
}

export function tone(v: Verdict): Tone {
  return v.endsWith('GAIN') ? 'gain' : v.endsWith('LOSS') ? 'loss' : v.endsWith('LEVEL') ? 'level' : 'unsure';
}

/** The colour of a tone, as a class. */
export const TONE_CLASS: Record<Tone, string> = {
  gain: 'text-leaf',
  loss: 'text-plum',
  level: 'text-ink-2',
  unsure: 'text-ink-3',
};

export function isClear(v: Verdict): boolean {
  return v === 'CLEAR_GAIN' || v === 'CLEAR_LOSS';
}

/** Where a display holds a value it is the least there may be: "at least 2.73×", with no interval and no verdict. */
export function boundWords(cell: Cell): string | undefined {
  if (cell.bound === undefined || cell.bound === 'NONE' || cell.ratio === undefined) return undefined;
  if (cell.bound === 'OPEN') return 'both capped';
  // "At least 0.08×" is no answer.
  if (cell.bound === 'AT_LEAST' ? cell.ratio < 1 : cell.ratio > 1) return 'open: capped below the other';
  return `${cell.bound === 'AT_LEAST' ? 'at least' : 'at most'} ${times(cell.ratio)}`;
}

/** Behind "too close to call": what would settle it. */
export function whatWouldTell(cell: Cell): string {
  if (cell.verdict !== 'CANNOT_TELL') return '';
  if (cell.threeEach) return 'run each three times';
  if (cell.moreThanMost) return 'more than 40 runs';
  if (cell.moreSessions !== undefined)
    return `${cell.moreSessions} more ${cell.moreSessions === 1 ? 'session' : 'sessions'} of three runs`;
  if (cell.moreRuns === undefined) return 'a second run';
  // Narrow enough already: it only lies across the line between level and a difference that matters.
  return cell.moreRuns === 0
    ? 'at the edge of what matters'
    : `${cell.moreRuns} more ${cell.moreRuns === 1 ? 'run' : 'runs'}`;
}

/** How sure a line is: its distance from "same" in half-widths of its interval. Unknown is the least sure. */
export function certainty(cell: Cell): number {
  if (cell.ratio === undefined || cell.low === undefined || cell.high === undefined) return -1;
  const half = Math.log(cell.high / cell.low) / 2;
  return half === 0 ? Infinity : Math.abs(Math.log(cell.ratio)) / half;
}

const READINGS = { BETTER: 'better', WORSE: 'worse', SAME: 'the same', CANNOT_TELL: 'too close to call' } as const;

/** How a difference reads: a temperature "worse +3.2 Cel", a check "worse: fails where the base passes". */
export function differenceWords(cell: Cell, metric: { kind?: string; unit: string }): string {
  if (cell.difference === undefined || cell.reading === undefined) return missingWords(cell);
  if (metric.kind === 'CHECK')
    return {
      BETTER: 'better: passes where the base fails',
      WORSE: 'worse: fails where the base passes',
      SAME: 'the same',
      CANNOT_TELL: 'too close to call: not the same every time',
    }[cell.reading];
  const unit = metric.unit === '1' ? '' : ` ${metric.unit === 'Cel' ? '°C' : metric.unit}`;
  return `${READINGS[cell.reading]} ${cell.difference > 0 ? '+' : ''}${number(cell.difference, 3)}${unit}`;
}

/** Why there is no value: how its run ended, or that nobody ran it. */
export function missingWords(cell: Cell): string {
  const { ended } = cell;
  if (!ended) return cell.outReason ?? '';
  const why = ended.words ?? (ended.reason ? reason(ended.reason) : '');
  return `${cell.outReason ?? runState(ended.state)}${why ? `: ${why}` : ''}`;
}
