/** A logarithmic axis of ratios around "same". */
export interface RatioAxis {
  /** Pixels of a ratio; what lies outside is held at the edge. */
  x: (ratio: number) => number;
  /** Whether a ratio lies outside. */
  outside: (ratio: number) => boolean;
  width: number;
  ticks: number[];
}

const STEPS = [1.02, 1.05, 1.1, 1.2, 1.5, 2, 3, 5, 10, 30, 100];
const EDGE = 8;
/** Further out than this the rest could not be read. */
const WIDEST = Math.log(12);
/** Nearer than this the noise of any test would fill the axis. */
const NARROWEST = Math.log(1.06);
const FEWEST_PIXELS = 44;

/** As wide as the ratios and their intervals need, the same to both sides. @param materiality a ratio above 1 that is shaded, so it has to fit */
export function ratioAxis(ratios: readonly number[], materiality: number, width: number): RatioAxis {
  const farthest = Math.max(
    NARROWEST,
    1.4 * Math.log(materiality),
    ...ratios.filter((r) => r > 0 && Number.isFinite(r)).map((r) => Math.abs(Math.log(r))),
  );
  const half = Math.min(WIDEST, farthest * 1.06);
  const x = (ratio: number) => {
    const at = Math.max(-half, Math.min(half, Math.log(ratio)));
    return width / 2 + (at / half) * (width / 2 - EDGE);
  };
  const ticks: number[] = [];
  let last = width / 2;
  for (const step of STEPS) {
    if (Math.log(step) <= half && x(step) - last >= FEWEST_PIXELS) {
      ticks.push(1 / step, step);
      last = x(step);
    }
  }
  return { x, outside: (ratio) => Math.abs(Math.log(ratio)) > half, width, ticks: ticks.sort((a, b) => a - b) };
}

/** An axis of differences around 0, for metrics of one unit: a temperature has no ratio. */
export interface DifferenceAxis {
  x: (difference: number) => number;
  width: number;
}

/** As wide as the differences and their intervals need, the same to both sides. @param sign −1 where less is better, so that right is better */
export function differenceAxis(differences: readonly number[], width: number, sign: number): DifferenceAxis {
  const farthest = Math.max(...differences.map(Math.abs), 0) || 1;
  return { x: (d) => width / 2 + ((sign * d) / (farthest * 1.06)) * (width / 2 - EDGE), width };
}
