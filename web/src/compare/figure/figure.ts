import { reading, testGroup } from '../../format/format.ts';
import type { Schemas } from '../../api/client.ts';
import { ratioAxis, type DifferenceAxis, type RatioAxis } from '../../chart/ratio-axis.ts';
import { times, formatRatio } from '../../format/ratio.ts';
import { axisKey, differenceAxes } from '../line/difference-axes.ts';
import { lineName, type ComparedRow, type Section } from '../line/order.ts';
import { framed, HEIGHT, rule, text, WIDTH, type Paint } from '../../export/page.ts';
import {
  answer,
  isClear,
  tone,
  verdictWords,
  type Cell,
  boundWords,
  howSure,
  differenceWords,
} from '../../format/verdict.ts';
import { named } from '../../format/named.ts';

type Comparison = Schemas['Comparison'];

const [EDGE, TOP, FOOT] = [70, 216, 76];
/** Shorter lines could not be read on a video. */
const SHORTEST_LINE = 24;
const TALLEST_LINE = 46;

type Line = { kind: 'group'; text: string } | { kind: 'row'; row: ComparedRow };

/** The comparison of one side as a picture of 1920 by 1080. @param font as a data address, so that the picture needs no file beside it */
export function figure(
  comparison: Comparison,
  parts: readonly Section[],
  side: number,
  paint: Paint,
  font: string,
  narrowed = '',
): string {
  const shown = comparison.sides[side]!;
  const lines: Line[] = parts.flatMap((p) => [
    ...(p.group ? [{ kind: 'group' as const, text: testGroup(p.group) }] : []),
    ...p.rows.map((row) => ({ kind: 'row' as const, row })),
  ]);
  const room = HEIGHT - TOP - FOOT;
  const columns = Math.max(1, Math.ceil((lines.length * SHORTEST_LINE) / room));
  const perColumn = Math.ceil(lines.length / columns);
  const line = Math.min(TALLEST_LINE, room / Math.max(1, perColumn));
  const width = (WIDTH - 2 * EDGE - (columns - 1) * 50) / columns;
  const size = Math.min(23, line * 0.62);
  const materiality = 1 + comparison.materiality / 100;
  const axis = ratioAxis(
    lines.flatMap((l) => {
      const cell = l.kind === 'row' ? l.row.cells[side] : undefined;
      return cell?.ratio === undefined ? [] : [cell.ratio, cell.low ?? 1, cell.high ?? 1];
    }),
    materiality,
    width * 0.36,
  );
  const differences = differenceAxes(
    lines.flatMap((l) => (l.kind === 'row' ? [l.row] : [])),
    axis.width,
  );
  const o = shown.overall;
  const changed = [
    ...shown.changed.differing.filter((r) => r.role === 'ALSO_CHANGED').map((r) => r.label),
    ...shown.conditions.filter((c) => c.disturbs).map((c) => c.other),
  ];
  const body = lines.map((l, i) => {
    const x = EDGE + Math.floor(i / perColumn) * (width + 50);
    const y = TOP + (i % perColumn) * line;
    return l.kind === 'group'
      ? text(x, y + line * 0.78, l.text, size * 1.02, paint.ink, { weight: 600 }) + rule(x, y + line, width, paint.hair)
      : rowOf(l.row, side, comparison, { x, y, width, line, size, axis, differences, materiality, paint });
  });
  return framed(paint.paper, font, [
    text(EDGE, 82, named(shown.configuration), 40, paint.ink, { weight: 600, most: 1240 }),
    text(EDGE, 124, `against ${named(comparison.base)}`, 27, paint.quiet, { most: 1240 }),
    text(
      EDGE,
      164,
      `${narrowed && `Asked ${narrowed}. `}${comparison.per ? `Every score per ${comparison.per.label}. ` : ''}${changed.length > 0 ? `Also changed: ${changed.slice(0, 4).join(', ')}${changed.length > 4 ? ` and ${changed.length - 4} more` : ''}` : shown.clean ? 'A clean comparison: only the change under test differs' : ''}`,
      22,
      paint.quiet,
      { most: 1240 },
    ),
    o
      ? text(WIDTH - EDGE, 88, o.size, 54, paint.ink, { weight: 600, end: true }) +
        text(
          WIDTH - EDGE,
          126,
          `${howSure(o.verdict)}, ${times(o.ratio, 3)} over ${o.shared} shared ${o.shared === 1 ? 'test' : 'tests'}, ${comparison.purpose}`,
          23,
          paint.ink,
          { end: true },
        ) +
        text(
          WIDTH - EDGE,
          158,
          `95 % interval ${o.range}${o.unmeasured > 0 ? ', a usual spread taken in part' : ''}`,
          21,
          paint.quiet,
          { end: true },
        )
      : '',
    ...body,
    text(
      EDGE,
      HEIGHT - 28,
      `Right is better; the band is ${comparison.materiality} %, too small to matter; bars are 95 % intervals. What stands at the right is against the base.`,
      20,
      paint.quiet,
    ),
    text(WIDTH - EDGE, HEIGHT - 28, 'Yarrowmark', 20, paint.quiet, { end: true }),
  ]);
}

/** Several sides in one picture: each a mark on the axis, with its ratio in a column of its own. @param marks of the sides, as paths around 0 and colours */
export function figureOfSeveral(
  comparison: Comparison,
  parts: readonly Section[],
  marks: readonly { path: string; colour: string }[],
  paint: Paint,
  font: string,
  narrowed = '',
): string {
  const lines: Line[] = parts.flatMap((p) => [
    ...(p.group ? [{ kind: 'group' as const, text: testGroup(p.group) }] : []),
    ...p.rows.map((row) => ({ kind: 'row' as const, row })),
  ]);
  const top = 210 + 38 * Math.ceil(comparison.sides.length / 2);
  const line = Math.min(TALLEST_LINE, (HEIGHT - top - FOOT) / Math.max(1, lines.length));
  const size = Math.min(22, line * 0.66);
  const width = WIDTH - 2 * EDGE;
  const [left, room, column] = [EDGE + width * 0.3, width * 0.34, (width * 0.34) / comparison.sides.length];
  const materiality = 1 + comparison.materiality / 100;
  const axis = ratioAxis(
    lines.flatMap((l) => (l.kind === 'row' ? l.row.cells.map((c) => c.ratio ?? 1) : [])),
    materiality,
    room,
  );
  const legend = comparison.sides.map((s, i) => {
    const [x, y] = [EDGE + (i % 2) * (width / 2), 186 + 38 * Math.floor(i / 2)];
    return (
      `<path transform="translate(${x + 8} ${y - 8})" d="${marks[i]!.path}" fill="${marks[i]!.colour}"/>` +
      text(
        x + 28,
        y,
        `${named(s.configuration)}: ${s.overall ? `${times(s.overall.ratio, 3)}, ${verdictWords(s.overall.verdict)}` : (s.noOverall ?? '')}`,
        24,
        paint.ink,
        { most: width / 2 - 60 },
      )
    );
  });
  const body = lines.map((l, i) => {
    const y = top + i * line;
    if (l.kind === 'group')
      return (
        text(EDGE, y + line * 0.76, l.text, size * 1.02, paint.ink, { weight: 600 }) +
        rule(EDGE, y + line, width, paint.hair)
      );
    const x = (r: number) => (left + axis.x(r)).toFixed(1);
    return (
      text(EDGE, y + line * 0.7, lineName(l.row, comparison.rows), size, paint.ink, { most: width * 0.29 }) +
      `<rect x="${x(1 / materiality)}" y="${(y + 2).toFixed(1)}" width="${(axis.x(materiality) - axis.x(1 / materiality)).toFixed(1)}" height="${(line - 4).toFixed(1)}" fill="${paint.band}"/><path d="M${x(1)} ${(y + 2).toFixed(1)}v${(line - 4).toFixed(1)}" stroke="${paint.quiet}" stroke-width="1.5"/>` +
      l.row.cells
        .map(
          (cell, k) =>
            (cell.ratio === undefined
              ? ''
              : `<path transform="translate(${x(cell.ratio)} ${(y + line / 2).toFixed(1)})" d="${marks[k]!.path}" fill="${marks[k]!.colour}"/>`) +
            text(
              left + room + 30 + column * k,
              y + line * 0.7,
              cell.ratio !== undefined
                ? formatRatio(cell.ratio, materiality)
                : cell.difference === undefined
                  ? '–'
                  : differenceWords(cell, l.row.metric),
              size * 0.9,
              colour(cell, paint),
              { weight: cell.verdict && isClear(cell.verdict) ? 600 : 400 },
            ),
        )
        .join('') +
      rule(EDGE, y + line, width, paint.hair)
    );
  });
  return framed(paint.paper, font, [
    text(EDGE, 82, `${comparison.sides.length} configurations against ${named(comparison.base)}`, 40, paint.ink, {
      weight: 600,
      most: width,
    }),
    text(
      EDGE,
      124,
      `Overall for ${comparison.purpose}${comparison.per ? `, every score per ${comparison.per.label}` : ''}${narrowed && `, ${narrowed}`}`,
      25,
      paint.quiet,
      { most: width },
    ),
    ...legend,
    ...body,
    text(
      EDGE,
      HEIGHT - 28,
      `Right is better; the band is ${comparison.materiality} %, too small to matter. Numbers are ratios to the base, bold where the verdict is clear.`,
      20,
      paint.quiet,
    ),
    text(WIDTH - EDGE, HEIGHT - 28, 'Yarrowmark', 20, paint.quiet, { end: true }),
  ]);
}

interface Place {
  x: number;
  y: number;
  width: number;
  line: number;
  size: number;
  axis: RatioAxis;
  differences: ReadonlyMap<string, DifferenceAxis>;
  materiality: number;
  paint: Paint;
}

function rowOf(
  row: ComparedRow,
  side: number,
  comparison: Comparison,
  { x, y, width, line, size, axis, differences, materiality, paint }: Place,
): string {
  const cell = row.cells[side];
  const base = y + line * 0.7;
  const at = x + width * 0.44;
  const value = (v: number | undefined) =>
    v === undefined ? '–' : reading(v, comparison.per && row.metric.scale === 'RATIO' ? { unit: '1' } : row.metric);
  return (
    text(x, base, lineName(row, comparison.rows), size, paint.ink, { most: width * 0.29 }) +
    text(at - 14, base, `${value(row.value)} → ${value(cell?.value)}`, size * 0.78, paint.quiet, {
      end: true,
      most: width * 0.19,
    }) +
    (cell
      ? (cell.difference === undefined
          ? drawn(cell, at, y, line, axis, materiality, paint)
          : drawnDifference(cell, at, y, line, differences.get(axisKey(row)), paint)) +
        text(at + axis.width + 16, base, words(cell, row.metric, materiality), size * 0.9, colour(cell, paint), {
          weight: cell.verdict && isClear(cell.verdict) ? 600 : 400,
          most: width * 0.2 - 16,
        })
      : '') +
    rule(x, y + line, width, paint.hair)
  );
}

function words(cell: Cell, metric: ComparedRow['metric'], materiality: number): string {
  const bound = boundWords(cell);
  if (bound !== undefined) return bound;
  if (cell.verdict === undefined) return differenceWords(cell, metric);
  return answer(cell) || formatRatio(cell.ratio!, materiality);
}

function colour(cell: Cell, paint: Paint): string {
  const of = cell.verdict === undefined ? 'level' : tone(cell.verdict);
  return of === 'gain' ? paint.gain : of === 'loss' ? paint.loss : of === 'level' ? paint.ink : paint.quiet;
}

function drawnDifference(
  cell: Cell,
  left: number,
  y: number,
  line: number,
  axis: DifferenceAxis | undefined,
  paint: Paint,
): string {
  if (axis === undefined || cell.difference === undefined) return '';
  const x = (d: number) => (left + axis.x(d)).toFixed(1);
  const middle = (y + line / 2).toFixed(1);
  const c = cell.reading === 'BETTER' ? paint.gain : cell.reading === 'WORSE' ? paint.loss : paint.quiet;
  return (
    `<path d="M${x(0)} ${(y + 3).toFixed(1)}v${(line - 6).toFixed(1)}" stroke="${paint.quiet}" stroke-width="1.5" stroke-dasharray="3 3"/>` +
    (cell.low !== undefined && cell.high !== undefined
      ? `<path d="M${x(cell.low)} ${middle}H${x(cell.high)}" stroke="${c}" stroke-width="4" stroke-linecap="round"/>`
      : '') +
    `<path d="M${x(cell.difference)} ${(y + line / 2 - 8).toFixed(1)}l8 8l-8 8l-8 -8z" fill="${c}"/>`
  );
}

function drawn(
  cell: Cell,
  left: number,
  y: number,
  line: number,
  axis: RatioAxis,
  materiality: number,
  paint: Paint,
): string {
  if (cell.ratio === undefined) return '';
  const x = (r: number) => (left + axis.x(r)).toFixed(1);
  const middle = (y + line / 2).toFixed(1);
  const c = colour(cell, paint);
  return (
    `<rect x="${x(1 / materiality)}" y="${(y + 3).toFixed(1)}" width="${(axis.x(materiality) - axis.x(1 / materiality)).toFixed(1)}" height="${(line - 6).toFixed(1)}" fill="${paint.band}"/>` +
    `<path d="M${x(1)} ${(y + 3).toFixed(1)}v${(line - 6).toFixed(1)}" stroke="${paint.quiet}" stroke-width="1.5"/>` +
    (cell.low !== undefined && cell.high !== undefined
      ? `<path d="M${x(cell.low)} ${middle}H${x(cell.high)}" stroke="${c}" stroke-width="4" stroke-linecap="round"${cell.unmeasured ? ' stroke-dasharray="5 8"' : ''}/>`
      : '') +
    (cell.verdict === undefined
      ? `<path d="M${x(cell.ratio)} ${(y + line / 2 - 8).toFixed(1)}v16" stroke="${c}" stroke-width="4" stroke-linecap="round"/>${cell.bound === 'OPEN' ? '' : `<path d="M${x(cell.ratio)} ${middle}h${cell.bound === 'AT_LEAST' ? 60 : -60}" stroke="${c}" stroke-width="2" stroke-dasharray="4 5"/>`}`
      : `<circle cx="${x(cell.ratio)}" cy="${middle}" r="${Math.min(9, line * 0.24).toFixed(1)}" fill="${isClear(cell.verdict) ? c : (paint.paper ?? '#ffffff')}" stroke="${c}" stroke-width="2.5"/>`)
  );
}
