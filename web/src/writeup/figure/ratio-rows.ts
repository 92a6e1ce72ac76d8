import type { Schemas } from '../../api/client.ts';
import { ratioAxis } from '../../chart/ratio-axis.ts';
import { formatRatio } from '../../format/ratio.ts';
import {
  boundWords,
  differenceWords,
  isClear,
  missingWords,
  tone,
  verdictWords,
  type Cell,
} from '../../format/verdict.ts';
import { named } from '../../format/named.ts';
import { lineName } from '../../compare/line/order.ts';
import { byWords, type ComparedBy } from '../question/asked.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothForms, pageRows } from './rows.ts';

type Comparison = Schemas['Comparison'];
type Row = Comparison['rows'][number];

/** The rows that are drawn: those that were chosen, or the main ones that both have. */
export function ratioRowsOf(comparison: Comparison, metrics: readonly number[] | undefined): Row[] {
  return metrics && metrics.length > 0
    ? metrics.flatMap((id) => comparison.rows.filter((r) => r.metric.id === id))
    : comparison.rows.filter(
        (r) =>
          r.metric.main &&
          r.cells[0] !== undefined &&
          (r.cells[0].ratio !== undefined || r.cells[0].ended !== undefined),
      );
}

export function cellWords(cell: Cell, metric: Row['metric'], materiality: number): string {
  if (cell.ratio === undefined) return cell.difference === undefined ? '–' : differenceWords(cell, metric);
  return boundWords(cell) ?? formatRatio(cell.ratio, materiality);
}

export function cellColour(cell: Cell): string {
  const of = cell.verdict === undefined ? 'unsure' : tone(cell.verdict);
  return of === 'gain' ? 'var(--leaf)' : of === 'loss' ? 'var(--plum)' : 'var(--ink-2)';
}

/** Ratios of one configuration to another, a line a test, around "same". */
export function drawRatios(
  comparison: Comparison,
  metrics: readonly number[] | undefined,
  by?: ComparedBy,
): Drawn | undefined {
  const rows = ratioRowsOf(comparison, metrics);
  const side = comparison.sides[0];
  if (rows.length === 0 || !side) return undefined;
  const materiality = 1 + comparison.materiality / 100;
  const span = rows.flatMap((r) => {
    const c = r.cells[0]!;
    return c.ratio === undefined ? [] : [c.ratio, c.low ?? 1, c.high ?? 1];
  });
  const drawing = bothForms(pageRows(262, 88, 27), rows.length, 26, (on, height) => {
    const { left, room } = on;
    const axis = ratioAxis(span, materiality, room);
    const x = (r: number) => left + axis.x(r);
    return [
      `<rect x="${x(1 / materiality).toFixed(1)}" y="0" width="${(axis.x(materiality) - axis.x(1 / materiality)).toFixed(1)}" height="${height - 22}" fill="var(--band)"/>`,
      stroke(x(1), 0, x(1), height - 22, 'var(--ink-3)'),
      ...rows.flatMap((row, i) => {
        const cell = row.cells[0]!;
        const y = on.middle(i);
        const colour = cellColour(cell);
        return [
          words(0, on.text(i), lineName(row, comparison.rows), {
            most: on.nameRoom,
            fill: cell.ratio === undefined ? 'var(--ink-2)' : 'var(--ink)',
          }),
          cell.ratio === undefined
            ? words(left, y + 5, missingWords(cell), { fill: 'var(--ink-2)', size: 13, most: room })
            : (cell.low !== undefined && cell.high !== undefined
                ? stroke(x(cell.low), y, x(cell.high), y, colour, 2.4)
                : '') +
              `<circle cx="${x(cell.ratio).toFixed(1)}" cy="${y.toFixed(1)}" r="5" fill="${cell.verdict && isClear(cell.verdict) ? colour : 'var(--paper)'}" stroke="${colour}" stroke-width="2"/>`,
          words(on.width, on.text(i), cellWords(cell, row.metric, materiality), {
            end: true,
            weight: cell.verdict && isClear(cell.verdict) ? 600 : 400,
            fill: colour,
          }),
        ];
      }),
      words(x(1), height - 6, 'same', { size: 12, middle: true, fill: 'var(--ink-2)' }),
      ...axis.ticks.map((t) =>
        words(x(t), height - 6, formatRatio(t, materiality), { size: 11, middle: true, fill: 'var(--ink-3)' }),
      ),
    ];
  });
  const narrowed = byWords(by, comparison);
  const also = side.changed.differing.filter((r) => r.role === 'ALSO_CHANGED').map((r) => r.label.toLowerCase());
  const measured = rows.filter((r) => r.cells[0]!.ratio !== undefined);
  const count = (wanted: string) => measured.filter((r) => r.cells[0]!.verdict?.endsWith(wanted)).length;
  return {
    ...drawing,
    caption: `${named(side.configuration)} against ${named(comparison.base)} = same; ratios with 95 % intervals, right is better, filled where clear.${narrowed && ` Asked ${narrowed}.`}${also.length > 0 ? ` Also changed: ${also.slice(0, 4).join(', ')}${also.length > 4 ? ` and ${also.length - 4} more` : ''}.` : ''}`,
    alt: `${rows.length} tests of ${named(side.configuration)} against ${named(comparison.base)}: ${count('GAIN')} better, ${count('LOSS')} worse, ${measured.length - count('GAIN') - count('LOSS')} level or not to be told${measured.length < rows.length ? `, ${rows.length - measured.length} without a value` : ''}.`,
    columns: ['test', 'ratio', '95 % low', '95 % high', 'verdict'],
    rows: rows.map((r) => {
      const c = r.cells[0]!;
      return [
        `${r.metric.suite}, ${lineName(r, comparison.rows)}`,
        cellWords(c, r.metric, materiality),
        c.low === undefined ? '' : c.low.toFixed(3),
        c.high === undefined ? '' : c.high.toFixed(3),
        c.verdict ? verdictWords(c.verdict) : c.ratio === undefined ? missingWords(c) : '',
      ];
    }),
    asks: rows.map((r) => [
      undefined,
      r.cells[0]!.ratio === undefined
        ? undefined
        : {
            of: 'ratio',
            configuration: side.configuration.id,
            base: comparison.base.id,
            metric: r.metric.id,
            ...(by && { by }),
          },
    ]),
  };
}
