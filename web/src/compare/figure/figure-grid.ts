import type { Schemas } from '../../api/client.ts';
import { reading } from '../../format/format.ts';
import { times } from '../../format/ratio.ts';
import { framed, HEIGHT, lines, rule, text, WIDTH, type Paint } from '../../export/page.ts';

const EDGE = 80;
const [TALLEST, WIDEST] = [110, 380];

/** Two factors as a picture: the grid, and below it what the factors do, as far as there is room. */
export function gridFigure(grid: Schemas['FactorGrid'], paint: Paint, font: string): string {
  const { first, second } = grid;
  if (!first || !second)
    return framed(paint.paper, font, [
      text(EDGE, 120, 'Two factors need configurations that differ in two facts.', 32, paint.ink),
    ]);
  const column = Math.min(WIDEST, (WIDTH - 2 * EDGE - 300) / second.levels.length);
  const row = Math.min(TALLEST, 520 / grid.rows.length);
  const top = 230;
  const cells = grid.rows.flatMap((r, i) => {
    const y = top + i * row;
    return [
      rule(EDGE, y, 300 + column * second.levels.length, paint.hair),
      text(EDGE, y + row * 0.5, r.level, 26, paint.ink, { weight: 600, most: 280 }),
      ...r.cells.map((cell, k) => {
        const x = EDGE + 300 + k * column;
        if (!cell.configuration) return text(x, y + row * 0.5, 'not measured', 24, paint.quiet);
        return (
          text(
            x,
            y + row * 0.46,
            cell.value !== undefined && grid.metric
              ? reading(cell.value, grid.metric)
              : cell.ratio === undefined
                ? '–'
                : times(cell.ratio, 3),
            Math.min(38, row * 0.4),
            paint.ink,
            { weight: 600 },
          ) +
          text(x, y + row * 0.8, `${cell.configuration.model}, ${cell.configuration.name}`, 19, paint.quiet, {
            most: column - 24,
          })
        );
      }),
    ];
  });
  let y = top + grid.rows.length * row + 56;
  const words: string[] = [];
  for (const block of grid.blocks) {
    for (const effect of [block.first, block.second, block.interaction]) {
      const { drawn, height } = lines(EDGE, y, effect.words, 25, paint.ink, WIDTH - 2 * EDGE);
      if (y + height > HEIGHT - 60) break;
      words.push(drawn);
      y += height + 8;
    }
  }
  return framed(paint.paper, font, [
    text(EDGE, 92, `${first.label} and ${second.label.toLowerCase()}`, 42, paint.ink, {
      weight: 600,
      most: WIDTH - 2 * EDGE,
    }),
    text(
      EDGE,
      136,
      grid.metric
        ? `${grid.metric.test}, ${grid.metric.suite} ${grid.metric.version}`
        : `Overall of ${grid.metrics.length} shared tests; ratios to the first cell, better above 1`,
      25,
      paint.quiet,
    ),
    ...second.levels.map((level, k) =>
      text(EDGE + 300 + k * column, top - 18, level, 26, paint.ink, { weight: 600, most: column - 20 }),
    ),
    ...cells,
    ...words,
    text(WIDTH - EDGE, HEIGHT - 28, 'Yarrowmark', 20, paint.quiet, { end: true }),
  ]);
}
