export const ORDERS = ['worst', 'best', 'all'] as const;
export type Order = (typeof ORDERS)[number];

/** As many rows as are read from a sofa; more of them come on pages. */
export const PAGE = 9;

export function pagesOf(count: number): number {
  return Math.max(1, Math.ceil(count / PAGE));
}

/** How many steps a scene of so many rows has: a row each, or a page where all are shown at once. */
export function stepsOf(count: number, order: Order): number {
  return order === 'all' ? pagesOf(count) : count + 1;
}

/** Which rows are shown after so many steps. */
export function revealed(count: number, step: number, order: Order): (i: number) => boolean {
  if (order === 'all') return () => true;
  return order === 'worst' ? (i) => i >= count - step : (i) => i < step;
}

/** The page on which the newest of the shown rows is, from 0. */
export function pageOf(count: number, step: number, order: Order): number {
  if (order === 'all') return Math.min(step, pagesOf(count) - 1);
  const newest = order === 'worst' ? count - step : step - 1;
  return Math.floor(Math.max(0, Math.min(count - 1, newest)) / PAGE);
}
