export const ORDERS = ['worst', 'best', 'all'] as const;
export type Order = (typeof ORDERS)[number];

/** Which rows are shown after so many steps. */
export function revealed(count: number, step: number, order: Order): (i: number) => boolean {
  if (order === 'all') return () => true;
  return order === 'worst' ? (i) => i >= count - step : (i) => i < step;
}
