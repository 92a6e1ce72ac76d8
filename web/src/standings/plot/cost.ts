import { number, quantity, unitName } from '../../format/format.ts';

/** What one pays for how much: "54 EUR for 100 points". */
export interface CostOf {
  /** "EUR for 100 points", the heading. */
  heading: string;
  /** "54 EUR for 100 points". */
  words: (x: number, height: number) => string;
  /** Of the quantity, for that many. */
  cost: (x: number, height: number) => number;
}

/**
 * Only where more is better: a price divided by a time would fall with both.
 *
 * @param heights what is paid for; for an overall the index
 */
export function costOf(
  of: { unit: string; divides: boolean },
  metric: { unit: string; direction: string; scale: string } | undefined,
  heights: readonly number[],
): CostOf | undefined {
  if (!of.divides || of.unit === '' || heights.length === 0) return undefined;
  if (metric && (metric.direction === 'LESS_IS_BETTER' || metric.scale !== 'RATIO')) return undefined;
  const sorted = [...heights].sort((a, b) => a - b);
  const middle = sorted[Math.floor(sorted.length / 2)]!;
  const amount = metric ? 10 ** Math.floor(Math.log10(middle)) : 100;
  const what = metric
    ? metric.unit === '1'
      ? `${number(amount)} ${amount === 1 ? 'point' : 'points'}`
      : quantity(amount, metric.unit)
    : 'index 100';
  const unit = unitName(of.unit);
  const cost = (x: number, height: number) => (x / height) * amount;
  return {
    heading: `${unit} for ${what}`,
    words: (x, height) => `${number(cost(x, height), 3)} ${unit} for ${what}`,
    cost,
  };
}

/** Prices that are tried, as the address has them: "12~899". */
export function readTried(tried: readonly string[] | undefined): Map<number, number> {
  return new Map(
    (tried ?? []).flatMap((t): [number, number][] => {
      const [id, amount] = t.split('~').map(Number);
      return id !== undefined && amount !== undefined && id > 0 && amount > 0 && Number.isFinite(amount)
        ? [[id, amount]]
        : [];
    }),
  );
}

export function writeTried(tried: ReadonlyMap<number, number>): string[] | undefined {
  return tried.size === 0 ? undefined : [...tried].map(([id, amount]) => `${id}~${amount}`);
}
