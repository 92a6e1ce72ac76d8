import { differenceAxis, type DifferenceAxis } from '../../chart/ratio-axis.ts';
import type { ComparedRow } from './order.ts';

/** Which differences share an axis: those of one unit and direction. */
export function axisKey(row: ComparedRow): string {
  return `${row.metric.kind === 'CHECK' ? 'check' : row.metric.unit} ${row.metric.direction}`;
}

/** An axis for each unit of the metrics that have no ratio. */
export function differenceAxes(rows: readonly ComparedRow[], width: number): Map<string, DifferenceAxis> {
  const by = new Map<string, ComparedRow[]>();
  for (const row of rows.filter((r) => r.metric.scale === 'DIFFERENCE'))
    by.set(axisKey(row), [...(by.get(axisKey(row)) ?? []), row]);
  return new Map(
    [...by].map(([key, own]) => [
      key,
      differenceAxis(
        own.flatMap((r) =>
          r.cells.flatMap((c) => (c.difference === undefined ? [] : [c.difference, c.low ?? 0, c.high ?? 0])),
        ),
        width,
        own[0]!.metric.direction === 'LESS_IS_BETTER' ? -1 : 1,
      ),
    ]),
  );
}
