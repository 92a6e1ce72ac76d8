import { ends, index, number } from '../../format/format.ts';
import type { Standings } from './ask.ts';

type Row = Standings['rows'][number];
type Metric = Standings['metric'];

/** Whether one metric alone is ranked that is compared by differences: it has values, and no index. */
export function byDifferences(metric: Metric): boolean {
  return metric?.scale === 'DIFFERENCE';
}

/** What the column says in which rows are held against the base. */
export function againstHeading(standings: Pick<Standings, 'metric' | 'base'>): string {
  return byDifferences(standings.metric) ? `Less that of ${standings.base ? 'the base' : 'the typical one'}` : 'Index';
}

/** The index, or the difference from the base with its unit. */
export function againstBase(row: Row, metric: Metric): string {
  if (metric && row.difference) return signed(row.difference.value, metric.unit);
  return row.index === undefined ? '–' : index(row.index, row.low, row.high);
}

/** The 95 % interval of that. */
export function intervalWords(row: Row, metric: Metric): string {
  if (row.atLeast) return 'at least';
  const d = row.difference;
  if (metric && d)
    return d.low === undefined || d.high === undefined
      ? '–'
      : `${signed(d.low, metric.unit)} to ${signed(d.high, metric.unit)}`;
  return row.low === undefined || row.high === undefined ? '–' : ends(row.low, row.high);
}

/** The ends of that interval where a rail has them: on merits, more is better. */
export function onRail(row: Row, metric: Metric): { low: number; high: number } | undefined {
  const d = row.difference;
  if (d) {
    if (d.low === undefined || d.high === undefined) return undefined;
    return metric?.direction === 'LESS_IS_BETTER' ? { low: -d.high, high: -d.low } : { low: d.low, high: d.high };
  }
  return row.low === undefined || row.high === undefined
    ? undefined
    : { low: Math.log(row.low / 100), high: Math.log(row.high / 100) };
}

function signed(value: number, unit: string): string {
  const said = unit === '1' || unit === '' ? '' : ` ${unit === 'Cel' ? '°C' : unit}`;
  return `${value > 0 ? '+' : ''}${number(value, 3)}${said}`;
}
