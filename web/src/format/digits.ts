/** How many digits a number is worth: one rule, from its interval, for every place that shows one. */

const MOST = 3;

/** Decimals that reach into the half-width of an interval, 0 to 3: 0.15 either side is worth one, 12 either side none. */
export function decimalsOf(low: number, high: number): number {
  const half = (high - low) / 2;
  if (!(half > 0) || !Number.isFinite(half)) return 0;
  return Math.min(MOST, Math.max(0, Math.ceil(-Math.log10(half) - 1e-6)));
}

/** Decimals of an index: those its interval is worth; one below 100 where there is no interval. */
export function indexDecimals(value: number, low: number | undefined, high: number | undefined): number {
  if (low === undefined || high === undefined || !(high > low)) return value >= 99.5 ? 0 : 1;
  return decimalsOf(low, high);
}

/**
 * Decimals of a ratio, 2 or 3: as many as it takes to tell it from "same" and from the edges of what matters, so that what
 * reads alike is alike.
 *
 * @param materiality a ratio above 1
 */
export function ratioDecimals(ratio: number, materiality: number): number {
  const edges = [1, materiality, 1 / materiality];
  const shown = ratio.toFixed(2);
  return edges.every((edge) => edge === ratio || edge.toFixed(2) !== shown) ? 2 : 3;
}
