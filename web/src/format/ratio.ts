import { ratioDecimals } from './digits.ts';

/** "1.034×", with as many decimals as its verdict takes. @param materiality a ratio above 1 */
export function formatRatio(ratio: number, materiality: number): string {
  return times(ratio, ratioDecimals(ratio, materiality));
}

/** "1.05×", with so many decimals below ten. */
export function times(ratio: number, digits = 2): string {
  return `${ratio >= 100 ? ratio.toFixed(0) : ratio >= 10 ? ratio.toFixed(1) : ratio.toFixed(digits)}×`;
}
