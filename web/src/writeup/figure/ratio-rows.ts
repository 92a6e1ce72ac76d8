import type { Schemas } from '../../api/client.ts';
import { ratioAxis, type DifferenceAxis } from '../../chart/ratio-axis.ts';
import { axisKey, differenceAxes } from '../../compare/line/difference-axes.ts';
import { lineName, type ComparedRow } from '../../compare/line/order.ts';
import { reading } from '../../format/format.ts';
import { named } from '../../format/named.ts';
import { formatRatio } from '../../format/ratio.ts';
import {
  answer,
  boundWords,
  differenceWords,
  isClear,
  missingWords,
  tone,
  verdictWords,
  type Cell,
} from '../../format/verdict.ts';
import { textWidth } from '../../chart/text-width.ts';
import { byWords, type ComparedBy } from '../question/asked.ts';
import { ARTICLE_WIDTH, stroke, words, type Drawn } from './drawn.ts';
import { bothForms, pageRows, PHONE_ROWS, type RowLayout } from './rows.ts';

type Comparison = Schemas['Comparison'];

/** The most that names, the values behind a ratio, and what it comes to take of a page; marks have the rest. */
const [NAMES, VALUES, ANSWERS] = [200, 160, 220];
const FOOT = 26;
/** A line more than other rows have: the values that the ratio is of. */
const PHONE_LINE = 62;
const PHONE: RowLayout = {
  ...PHONE_ROWS,
  line: PHONE_LINE,
  nameRoom: PHONE_ROWS.width,
  text: (i) => i * PHONE_LINE + 16,
  middle: (i) => i * PHONE_LINE + 47,
};

/** The rows that are drawn: those that were chosen, or the main ones that both have. */
export function ratioRowsOf(comparison: Comparison, metrics: readonly number[] | undefined): ComparedRow[] {
  return metrics && metrics.length > 0
    ? metrics.flatMap((id) => comparison.rows.filter((r) => r.metric.id === id))
    : comparison.rows.filter(
        (r) =>
          r.metric.main &&
          r.cells[0] !== undefined &&
          (r.cells[0].ratio !== undefined || r.cells[0].ended !== undefined),
      );
}

/** What a cell comes to, as Compare says it. */
export function cellWords(cell: Cell, metric: ComparedRow['metric'], materiality: number): string {
  if (cell.ratio === undefined) return cell.difference === undefined ? '–' : differenceWords(cell, metric);
  return boundWords(cell) ?? (answer(cell) || formatRatio(cell.ratio, materiality));
}

export function cellColour(cell: Cell): string {
  const of = cell.verdict === undefined ? 'unsure' : tone(cell.verdict);
  return of === 'gain' ? 'var(--leaf)' : of === 'loss' ? 'var(--plum)' : 'var(--ink-2)';
}

/** The two values behind a ratio, each in its unit: "412 → 498 MB/s". */
function valuesOf(row: ComparedRow, cell: Cell, comparison: Comparison): string {
  const metric = comparison.per && row.metric.scale === 'RATIO' ? { unit: '1' } : row.metric;
  const said = (v: number | undefined) => (v === undefined ? '–' : reading(v, metric));
  if (row.value === undefined && cell.value === undefined) return '';
  const [from, to] = [said(row.value), said(cell.value)];
  // The unit once, where both have it.
  const unit = ` ${metric.unit}`;
  return `${to.endsWith(unit) && from.endsWith(unit) ? from.slice(0, -unit.length) : from} → ${to}`;
}

/** Several drawings of one comparison, such as the columns of a picture, share an axis. */
export function spanOf(rows: readonly ComparedRow[], side = 0): number[] {
  return rows.flatMap((r) => {
    const c = r.cells[side];
    return c?.ratio === undefined ? [] : [c.ratio, c.low ?? 1, c.high ?? 1];
  });
}

/**
 * Ratios of one side to the base, a line a test, around "same".
 *
 * @param chosen lines in their order, the side they are of, the ratios that their axis has to hold, and a width other than
 *               an article's
 */
export function drawRatios(
  comparison: Comparison,
  metrics: readonly number[] | undefined,
  by?: ComparedBy,
  chosen: { rows?: readonly ComparedRow[]; side?: number; span?: readonly number[]; width?: number } = {},
): Drawn | undefined {
  const at = chosen.side ?? 0;
  const rows = [...(chosen.rows ?? ratioRowsOf(comparison, metrics))];
  const side = comparison.sides[at];
  if (rows.length === 0 || !side) return undefined;
  const cells = rows.map((r) => r.cells[at] ?? { unmeasured: false, moreThanMost: false, threeEach: false });
  const materiality = 1 + comparison.materiality / 100;
  const values = rows.map((row, i) => valuesOf(row, cells[i]!, comparison));
  const answers = rows.map((row, i) => cellWords(cells[i]!, row.metric, materiality));
  const names = rows.map((row) => lineName(row, comparison.rows));
  const span = chosen.span ?? spanOf(rows, at);
  // Both forms name the same ratios.
  const ticks = new Set(ratioAxis(span, materiality, PHONE.room).ticks);
  const width = chosen.width ?? ARTICLE_WIDTH;
  const widest = (of: readonly string[], size: number, most: number) =>
    Math.min(most, 12 + Math.max(...of.map((w) => textWidth(w, size, 600))));
  const nameRoom = widest(names, 14, NAMES + (width - ARTICLE_WIDTH) / 2);
  const valueRoom = widest(values, 12, VALUES);
  const answerRoom = widest(answers, 13, ANSWERS);
  const drawing = bothForms(
    pageRows(nameRoom + valueRoom, answerRoom, 27, width),
    rows.length,
    FOOT,
    (on, height) => {
      const { left, room } = on;
      const axis = ratioAxis(span, materiality, room);
      const differences = differenceAxes(rows, room);
      const x = (r: number) => left + axis.x(r);
      return [
        `<rect x="${x(1 / materiality).toFixed(1)}" y="0" width="${(axis.x(materiality) - axis.x(1 / materiality)).toFixed(1)}" height="${height - FOOT + 4}" fill="var(--band)"/>`,
        stroke(x(1), 0, x(1), height - FOOT + 4, 'var(--ink-3)'),
        ...rows.flatMap((row, i) => {
          const cell = cells[i]!;
          const y = on.middle(i);
          const colour = cellColour(cell);
          const missing = cell.ratio === undefined && cell.difference === undefined;
          return [
            words(0, on.text(i), names[i]!, {
              most: on.narrow ? on.nameRoom : nameRoom - 8,
              fill: missing ? 'var(--ink-2)' : 'var(--ink)',
            }),
            values[i] === ''
              ? ''
              : words(on.narrow ? 0 : left - 10, on.narrow ? on.text(i) + 17 : on.text(i), values[i]!, {
                  size: 12,
                  fill: 'var(--ink-2)',
                  end: !on.narrow,
                  most: on.narrow ? on.width - answerRoom - 6 : valueRoom,
                }),
            missing
              ? words(left, y + 5, missingWords(cell), { fill: 'var(--ink-2)', size: 13, most: room })
              : cell.ratio === undefined
                ? onDifferences(cell, left, y, differences.get(axisKey(row)))
                : onRatios(cell, x, y, colour),
            words(on.width, on.narrow ? on.text(i) + 17 : on.text(i), answers[i]!, {
              end: true,
              size: 13,
              weight: cell.verdict && isClear(cell.verdict) ? 600 : 400,
              fill: colour,
              most: answerRoom,
            }),
          ];
        }),
        words(x(1), height - 6, 'same', { size: 12, middle: true, fill: 'var(--ink-2)' }),
        ...axis.ticks
          .filter((t) => ticks.has(t))
          .map((t) =>
            words(x(t), height - 6, formatRatio(t, materiality), { size: 11, middle: true, fill: 'var(--ink-3)' }),
          ),
      ];
    },
    PHONE,
  );
  const narrowed = byWords(by, comparison);
  const out = rows.filter((_, i) => cells[i]!.outReason !== undefined && cells[i]!.ratio !== undefined);
  const outNames = out.slice(0, 4).map((r) => lineName(r, comparison.rows));
  if (out.length > 4) outNames.push(`${out.length - 4} more`);
  const also = side.changed.differing.filter((r) => r.role === 'ALSO_CHANGED').map((r) => r.label.toLowerCase());
  const measured = cells.filter((c) => c.ratio !== undefined);
  // Narrowed, a value beside a ratio may be of some sessions, or per watt; a number in a text is of all.
  const raw = (configuration: number, metric: number, value: number | undefined) =>
    by === undefined && value !== undefined ? { of: 'value' as const, configuration, metric } : undefined;
  const count = (wanted: string) => measured.filter((c) => c.verdict?.endsWith(wanted)).length;
  return {
    ...drawing,
    caption: `${named(side.configuration)} against ${named(comparison.base)} = same; ratios with 95 % intervals, right is better, filled where clear.${narrowed && ` Asked ${narrowed}.`}${out.length > 0 ? ` Not in the overall: ${outNames.join(', ')}.` : ''}${also.length > 0 ? ` Also changed: ${also.slice(0, 4).join(', ')}${also.length > 4 ? ` and ${also.length - 4} more` : ''}.` : ''}`,
    alt: `${rows.length} tests of ${named(side.configuration)} against ${named(comparison.base)}: ${count('GAIN')} better, ${count('LOSS')} worse, ${measured.length - count('GAIN') - count('LOSS')} level or not to be told${measured.length < rows.length ? `, ${rows.length - measured.length} without a value` : ''}.`,
    columns: [
      'test',
      named(comparison.base),
      named(side.configuration),
      'ratio',
      '95 % low',
      '95 % high',
      'verdict',
    ].map((c) => c.slice(0, 200)),
    rows: rows.map((r, i) => {
      const c = cells[i]!;
      const said = (v: number | undefined) => (v === undefined ? '' : reading(v, r.metric));
      return [
        `${r.metric.suite}, ${lineName(r, comparison.rows)}`,
        said(r.value),
        said(c.value),
        c.ratio === undefined ? cellWords(c, r.metric, materiality) : formatRatio(c.ratio, materiality),
        c.low === undefined ? '' : c.low.toFixed(3),
        c.high === undefined ? '' : c.high.toFixed(3),
        c.verdict ? verdictWords(c.verdict) : c.ratio === undefined ? missingWords(c) : (boundWords(c) ?? ''),
      ];
    }),
    asks: rows.map((r, i) => [
      undefined,
      raw(comparison.base.id, r.metric.id, r.value),
      raw(side.configuration.id, r.metric.id, cells[i]!.value),
      cells[i]!.ratio === undefined
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

function onRatios(cell: Cell, x: (ratio: number) => number, y: number, colour: string): string {
  const at = x(cell.ratio!);
  const whisker =
    cell.low !== undefined && cell.high !== undefined
      ? stroke(x(cell.low), y, x(cell.high), y, colour, 2.4, cell.unmeasured ? '3 5' : '')
      : '';
  // What a display holds has no interval: a bar where it is at least, and a dashed line to where it may be.
  if (cell.verdict === undefined)
    return (
      whisker +
      stroke(at, y - 5, at, y + 5, colour, 2.4) +
      (cell.bound === undefined || cell.bound === 'OPEN' || cell.bound === 'NONE'
        ? ''
        : stroke(at, y, at + (cell.bound === 'AT_LEAST' ? 24 : -24), y, colour, 1.4, '2 3'))
    );
  return `${whisker}<circle cx="${at.toFixed(1)}" cy="${y.toFixed(1)}" r="5" fill="${isClear(cell.verdict) ? colour : 'var(--paper)'}" stroke="${colour}" stroke-width="2"/>`;
}

/** A temperature or a check has no ratio: a diamond on an axis of its own unit around no difference. */
function onDifferences(cell: Cell, left: number, y: number, axis: DifferenceAxis | undefined): string {
  if (axis === undefined) return '';
  const x = (d: number) => left + axis.x(d);
  const colour = cell.reading === 'BETTER' ? 'var(--leaf)' : cell.reading === 'WORSE' ? 'var(--plum)' : 'var(--ink-2)';
  return (
    (cell.low !== undefined && cell.high !== undefined ? stroke(x(cell.low), y, x(cell.high), y, colour, 2.4) : '') +
    `<path d="M${x(cell.difference!).toFixed(1)} ${(y - 5).toFixed(1)}l5 5l-5 5l-5 -5z" fill="${colour}"/>`
  );
}
