import type { Schemas } from '../../api/client.ts';
import { times } from '../../format/ratio.ts';
import { lines } from '../../export/page.ts';
import { reading } from '../../format/format.ts';
import { ARTICLE_WIDTH, bar, stroke, words, type Drawn } from './drawn.ts';
import { bothWidths } from './rows.ts';

const [LEFT, HEAD, ROW] = [150, 52, 62];

/** What two facts do together: a cell for each pair of them, with a bar that begins at zero, and the effects below. */
export function drawFactors(grid: Schemas['FactorGrid']): Drawn | undefined {
  const { first, second, rows } = grid;
  if (!first || !second || rows.length === 0) return undefined;
  const wide = (ARTICLE_WIDTH - LEFT) / second.levels.length;
  const most = Math.max(...rows.flatMap((r) => r.cells.map((c) => c.ratio ?? 0)));
  if (!(most > 0)) return undefined;
  const told = (cell: (typeof rows)[number]['cells'][number]) =>
    cell.configuration === undefined || cell.ratio === undefined
      ? 'not measured'
      : cell.value !== undefined && grid.metric
        ? reading(cell.value, grid.metric)
        : times(cell.ratio, 3);
  const effects = grid.blocks.flatMap((b) => [b.first.words, b.second.words, b.interaction.words]).slice(0, 3);
  /** Sentences from there on, one below the other. */
  const below = (from: number, width: number) =>
    effects.reduce<{ parts: string[]; height: number }>(
      (all, e) => {
        const of = lines(0, all.height + 20, e, 14, 'var(--ink)', width);
        return { parts: [...all.parts, of.drawn], height: all.height + of.height + 4 };
      },
      { parts: [], height: from },
    );
  const what = grid.metric ? grid.metric.test : `the overall of ${grid.metrics.length} tests`;
  const page = () => {
    const sentences = below(HEAD + rows.length * ROW + 8, ARTICLE_WIDTH);
    return {
      parts: [
        words(LEFT, 16, second.label, { size: 13, fill: 'var(--ink-2)', most: ARTICLE_WIDTH - LEFT }),
        words(0, 40, first.label, { size: 13, fill: 'var(--ink-2)', most: LEFT - 10 }),
        ...second.levels.map((l, i) => words(LEFT + i * wide, 40, l, { weight: 600, most: wide - 12 })),
        stroke(0, HEAD, ARTICLE_WIDTH, HEAD, 'var(--ink-3)'),
        ...rows.flatMap((r, i) => {
          const y = HEAD + i * ROW;
          return [
            words(0, y + 28, r.level, { weight: 600, most: LEFT - 10 }),
            stroke(0, y + ROW, ARTICLE_WIDTH, y + ROW, 'var(--hair)'),
            ...r.cells.flatMap((c, k) => {
              const x = LEFT + k * wide;
              const known = c.configuration !== undefined && c.ratio !== undefined;
              return [
                words(x, y + 28, told(c), {
                  size: known ? 18 : 13,
                  weight: known ? 600 : 400,
                  fill: known ? 'var(--ink)' : 'var(--ink-2)',
                  most: wide - 12,
                }),
                known ? bar(x, y + 40, (c.ratio! / most) * (wide - 18), 7, 'var(--accent, var(--leaf))') : '',
                known && grid.metric
                  ? words(x + wide - 18, y + 28, times(c.ratio!, 2), { size: 12, end: true, fill: 'var(--ink-2)' })
                  : '',
              ];
            }),
          ];
        }),
        ...sentences.parts,
      ],
      height: sentences.height,
    };
  };
  // A cell on a line of its own: what of the second stands first, what it gives at the end, its bar below.
  const phone = (width: number) => {
    let y = 18;
    const parts = [
      words(0, y, `${first.label}, then ${second.label.toLowerCase()}`, {
        size: 13,
        fill: 'var(--ink-2)',
        most: width,
      }),
    ];
    for (const r of rows) {
      y += 30;
      parts.push(words(0, y, r.level, { weight: 600, most: width }), stroke(0, y + 8, width, y + 8, 'var(--hair)'));
      y += 10;
      for (const [k, c] of r.cells.entries()) {
        const known = c.configuration !== undefined && c.ratio !== undefined;
        y += 22;
        parts.push(
          words(10, y, second.levels[k]!, { most: width / 2 }),
          words(width, y, told(c), {
            end: true,
            weight: known ? 600 : 400,
            fill: known ? 'var(--ink)' : 'var(--ink-2)',
          }),
        );
        if (known) parts.push(bar(10, y + 7, (c.ratio! / most) * (width - 10), 6, 'var(--accent, var(--leaf))'));
        y += known ? 14 : 0;
      }
    }
    const sentences = below(y + 6, width);
    return { parts: [...parts, ...sentences.parts], height: sentences.height };
  };
  return {
    ...bothWidths((width, narrow) => (narrow ? phone(width) : page())),
    caption: `${first.label} and ${second.label.toLowerCase()} by ${what}; ratios and bars are to the first cell, better is longer.${grid.days ? ` Intervals: ${grid.days}.` : ''}`,
    alt: `${first.label} and ${second.label.toLowerCase()} by ${what}. ${rows.flatMap((r) => r.cells.map((c, k) => `${r.level}, ${second.levels[k]}: ${told(c)}`)).join('; ')}.`.slice(
      0,
      1900,
    ),
    columns: [first.label, ...second.levels],
    rows: rows.map((r) => [r.level, ...r.cells.map((c) => told(c))]),
  };
}
