import type { Schemas } from '../api/client.ts';

export type Trends = Schemas['Trends'];
export type Line = Schemas['LinePart'];
export type Step = Schemas['StepPart'];

/** Results that follow one another without a gap between them: a line is never drawn through a missing one. */
export function unbroken<P extends { step: number }>(points: readonly P[]): P[][] {
  const parts: P[][] = [];
  for (const p of points) {
    const last = parts.at(-1);
    if (last && last.at(-1)!.step === p.step - 1) last.push(p);
    else parts.push([p]);
  }
  return parts;
}

/** Where steps stand across a width: at equal distances, or to scale where each has a number. */
export function places(steps: readonly Pick<Step, 'x'>[], from: number, to: number, toScale: boolean): number[] {
  const xs = steps.map((s) => s.x);
  const known = xs.filter((x) => x !== undefined);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const scaled = toScale && known.length === xs.length && high > low;
  return steps.map((_, i) => {
    const share = scaled ? (xs[i]! - low) / (high - low) : steps.length < 2 ? 0 : i / (steps.length - 1);
    return from + share * (to - from);
  });
}

/** Which of some places, in rising order, have room for a label of this width. */
export function withRoom(xs: readonly number[], least: number): number[] {
  const shown: number[] = [];
  xs.forEach((x, i) => {
    if (shown.length === 0 || x - xs[shown.at(-1)!]! >= least) shown.push(i);
  });
  return shown;
}

/**
 * Heights of labels at the ends of lines, moved apart so that none lies on another, in their order and as near as may be to
 * where they belong.
 */
export function apart(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]! || a - b);
  const step = Math.min(gap, order.length > 1 ? (high - low) / (order.length - 1) : gap);
  const placed = new Array<number>(wanted.length).fill(0);
  let before = -Infinity;
  for (const i of order) {
    before = Math.max(wanted[i]!, before + step, low);
    placed[i] = before;
  }
  // Too far down: from the last one upwards.
  let after = Infinity;
  for (const i of [...order].reverse()) {
    after = Math.min(placed[i]!, after - step, high);
    placed[i] = after;
  }
  return placed;
}

/** Of one step: the tests that gained and lost most, those that are marked first. */
export function movers(trends: Pick<Trends, 'lines'>, step: number): { line: Line; change: Line['steps'][number] }[] {
  const all = trends.lines.flatMap((line) => {
    const change = line.steps.find((s) => s.to === step);
    return change ? [{ line, change }] : [];
  });
  const told = all.filter(({ change }) => change.marked);
  const size = ({ change }: (typeof all)[number]) => Math.abs(Math.log(change.ratio));
  return told.sort((a, b) => size(b) - size(a));
}

/** "kernel only", "also graphics driver, memory". */
export function changedWords(step: Step, along: Trends['along'], first: boolean): string {
  if (first) return 'first';
  const label = along.order === 'DATE' ? 'the day' : along.label.toLowerCase();
  if (step.changed.length === 0) return `nothing but ${label} changed`;
  const named = step.changed.slice(0, 3).map((c) => c.label);
  const more = step.changed.length - named.length;
  return `also ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
