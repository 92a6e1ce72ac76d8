import type { Schemas } from '../../api/client.ts';
import { ratioAxis } from '../../chart/ratio-axis.ts';
import { lineName, type ComparedRow } from '../../compare/line/order.ts';
import { named } from '../../format/named.ts';
import { formatRatio, times } from '../../format/ratio.ts';
import { differenceWords, isClear, verdictWords } from '../../format/verdict.ts';
import { byWords, type ComparedBy } from '../question/asked.ts';
import { ARTICLE_WIDTH, stroke, svgOf, words, type Drawn } from './drawn.ts';
import { cellColour } from './ratio-rows.ts';

const [LINE, FOOT, LEGEND] = [25, 26, 22];
/** Wider than an article: each side has a column of its own beside the marks. */
const WIDTH = 1.6 * ARTICLE_WIDTH;

/** Several sides on one axis, each with its mark and a column of its own. @param marks of the sides, as paths around 0 and their colours */
export function drawRatioColumns(
  comparison: Schemas['Comparison'],
  rows: readonly ComparedRow[],
  marks: readonly { path: string; colour: string }[],
  by: ComparedBy | undefined,
): Drawn | undefined {
  const { sides } = comparison;
  if (rows.length === 0 || sides.length === 0) return undefined;
  const materiality = 1 + comparison.materiality / 100;
  const top = LEGEND * sides.length + 14;
  const height = top + rows.length * LINE + FOOT;
  const [left, room] = [WIDTH * 0.28, WIDTH * 0.32];
  const column = (WIDTH * 0.4 - 20) / sides.length;
  const axis = ratioAxis(
    rows.flatMap((r) => r.cells.map((c) => c.ratio ?? 1)),
    materiality,
    room,
  );
  const x = (r: number) => left + axis.x(r);
  const mark = (i: number, at: number, y: number) =>
    `<path transform="translate(${at.toFixed(1)} ${y.toFixed(1)})" d="${marks[i]!.path}" fill="${marks[i]!.colour}"/>`;
  const narrowed = byWords(by, comparison);
  const foot = top + rows.length * LINE;
  return {
    svg: svgOf(WIDTH, height, [
      ...sides.flatMap((s, i) => [
        mark(i, 8, i * LEGEND + 10),
        words(
          26,
          i * LEGEND + 15,
          `${named(s.configuration)}: ${s.overall ? `${times(s.overall.ratio, 3)} overall, ${verdictWords(s.overall.verdict)}` : (s.noOverall ?? '')}`,
          { most: WIDTH - 26 },
        ),
      ]),
      `<rect x="${x(1 / materiality).toFixed(1)}" y="${top}" width="${(axis.x(materiality) - axis.x(1 / materiality)).toFixed(1)}" height="${foot - top + 4}" fill="var(--band)"/>`,
      stroke(x(1), top, x(1), foot + 4, 'var(--ink-3)'),
      ...rows.flatMap((row, i) => {
        const y = top + i * LINE + LINE / 2;
        return [
          words(0, y + 5, lineName(row, comparison.rows), { most: left - 12 }),
          ...row.cells.flatMap((cell, k) => [
            cell.ratio === undefined ? '' : mark(k, x(cell.ratio), y),
            words(
              left + room + 20 + column * k,
              y + 5,
              cell.ratio !== undefined
                ? formatRatio(cell.ratio, materiality)
                : cell.difference === undefined
                  ? '–'
                  : differenceWords(cell, row.metric),
              {
                size: 13,
                fill: cellColour(cell),
                weight: cell.verdict && isClear(cell.verdict) ? 600 : 400,
                most: column - 8,
              },
            ),
          ]),
        ];
      }),
      ...sides.map((_, k) => mark(k, left + room + 26 + column * k, foot + 12)),
      words(x(1), height - 8, 'same', { size: 12, middle: true, fill: 'var(--ink-2)' }),
      ...axis.ticks.map((t) =>
        words(x(t), height - 8, formatRatio(t, materiality), { size: 11, middle: true, fill: 'var(--ink-3)' }),
      ),
    ]),
    width: WIDTH,
    height,
    caption: `${sides.length} configurations against ${named(comparison.base)} = same; right is better, bold where the verdict is clear.${narrowed && ` Asked ${narrowed}.`}`,
    alt: `${rows.length} tests of ${sides.map((s) => named(s.configuration)).join(', ')} against ${named(comparison.base)}.`,
    columns: ['test', ...sides.map((s) => named(s.configuration).slice(0, 200))],
    rows: rows.map((r) => [
      `${r.metric.suite}, ${lineName(r, comparison.rows)}`,
      ...r.cells.map((c) => (c.ratio !== undefined ? formatRatio(c.ratio, materiality) : differenceWords(c, r.metric))),
    ]),
  };
}
