import type { Sorting } from '../../ui/SortHeader.tsx';
import type { Standings } from '../question/ask.ts';

type Row = Standings['rows'][number];
export type ListOrder = 'place' | 'name' | 'value' | 'index' | 'share' | 'tests';

/** Rows by a column. What has no value there comes last, whichever way; equals stay in the order of places. */
export function sorted(rows: readonly Row[], sorting: Sorting<ListOrder>): Row[] {
  const at = new Map(rows.map((r, i) => [r, i]));
  const of = (r: Row): number | string | undefined => {
    switch (sorting.by) {
      case 'place':
        return at.get(r);
      case 'name':
        return `${r.configuration.maker} ${r.configuration.model}, ${r.configuration.name}`.toLowerCase();
      case 'value':
        return r.value;
      case 'index':
        return r.difference?.value ?? r.index;
      case 'share':
        return r.percentile;
      case 'tests':
        return r.runs ?? r.tests;
    }
  };
  const sign = sorting.falling ? -1 : 1;
  return [...rows].sort((a, b) => {
    const [x, y] = [of(a), of(b)];
    if (x === undefined || y === undefined) return x === y ? at.get(a)! - at.get(b)! : x === undefined ? 1 : -1;
    const order = typeof x === 'string' ? x.localeCompare(String(y), 'en', { numeric: true }) : x - Number(y);
    return order !== 0 ? sign * order : at.get(a)! - at.get(b)!;
  });
}

/**
 * Where published values stand among rows that are in the order of places: each before the first row whose value is not better.
 *
 * @returns those before a row, by its position; before the number of rows, those that are worse than all
 */
export function publishedBetween(
  published: Standings['published'],
  rows: readonly Row[],
  metric: Standings['metric'],
): { before: (row: number) => Standings['published'] } {
  const sign = metric?.direction === 'LESS_IS_BETTER' ? -1 : 1;
  const at = published.map((p) => {
    const found = rows.findIndex((r) => r.value === undefined || sign * r.value <= sign * p.value);
    return found < 0 ? rows.length : found;
  });
  const best = (a: Standings['published'][number], b: Standings['published'][number]) => sign * (b.value - a.value);
  return { before: (row) => published.filter((_, i) => at[i] === row).sort(best) };
}
