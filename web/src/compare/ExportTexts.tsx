import type { Schemas } from '../api/client.ts';
import { useTable } from '../shell/table-store.ts';
import { comparisonCsv } from '../export/csv.ts';
import { byWords, type ComparedBy } from '../writeup/question/asked.ts';
import { drawRatioColumns } from '../writeup/figure/ratio-columns.ts';
import { drawRatios, spanOf } from '../writeup/figure/ratio-rows.ts';
import { ARTICLE_WIDTH } from '../writeup/figure/drawn.ts';
import { figurePage } from '../writeup/figure/figure-page.ts';
import { markOf } from '../export/mark-of.ts';
import type { ComparedRow, Section } from './line/order.ts';
import type { PaintName } from '../export/page.ts';
import { howSure } from '../format/verdict.ts';
import { times } from '../format/ratio.ts';
import { slotsOf } from './line/slots.ts';
import { ExportMenu } from '../export/ExportMenu.tsx';
import { named } from '../format/named.ts';

/** The comparison to take along: one side with its intervals, or several on one axis. */
export function ExportTexts({
  comparison,
  parts,
  side,
  by,
}: {
  comparison: Schemas['Comparison'];
  parts: readonly Section[];
  side: number;
  by: ComparedBy | undefined;
}) {
  // What all of it was asked for goes along: a part that is left out changes every overall.
  const narrowed = byWords(by, { ...comparison, per: undefined });
  const overall = comparison.sides[side]?.overall?.sentence;
  const several = comparison.sides.length > 1;
  const rows = parts.flatMap((p) => p.rows);
  const slots = slotsOf(useTable(), [comparison.base.id, ...comparison.sides.map((s) => s.configuration.id)]);
  return (
    <ExportMenu
      name={`${several ? `${comparison.sides.length} configurations` : named(comparison.sides[side]!.configuration)} against ${named(comparison.base)}`}
      draw={(paint, font) =>
        several
          ? severalPage(
              comparison,
              rows,
              comparison.sides.map((s) => markOf(slots(s.configuration.id), paint)),
              by,
              paint,
              font,
            )
          : sidePage(comparison, rows, side, by, paint, font)
      }
      csv={() => comparisonCsv(comparison)}
      sentence={overall && narrowed ? `${overall.replace(/\.$/, '')}, ${narrowed}.` : overall}
    />
  );
}

/** More lines than these in a column could not be read on a video. */
const MOST_IN_COLUMN = 30;
const WIDEST = 1000;
const WIDE_OF_A_LINE = 66;

/** One side as a picture: the figure of write-ups with every line of the view in its order, in columns where they are many. */
export function sidePage(
  comparison: Schemas['Comparison'],
  rows: readonly ComparedRow[],
  side: number,
  by: ComparedBy | undefined,
  paint: PaintName,
  font: string,
): string {
  const shown = comparison.sides[side]!;
  const columns = Math.ceil(rows.length / MOST_IN_COLUMN);
  const each = Math.ceil(rows.length / Math.max(1, columns));
  const span = spanOf(rows, side);
  // A page has room at its sides where lines are few.
  const width = Math.max(ARTICLE_WIDTH, Math.min(WIDEST, each * WIDE_OF_A_LINE));
  const drawn = Array.from({ length: columns }, (_, i) =>
    drawRatios(comparison, undefined, by, { rows: rows.slice(i * each, (i + 1) * each), side, span, width }),
  ).flatMap((d) => d ?? []);
  const o = shown.overall;
  return figurePage(
    drawn.length > 0 ? drawn : { svg: '', width: 1, height: 1 },
    drawn[0]?.caption ?? `${named(shown.configuration)} and ${named(comparison.base)} share no test.`,
    paint,
    font,
    {
      name: named(shown.configuration),
      more: [
        `against ${named(comparison.base)}`,
        `${o ? `${o.size}, ${howSure(o.verdict)}: ${times(o.ratio, 3)} over ${o.shared} shared ${o.shared === 1 ? 'test' : 'tests'}, ${comparison.purpose}, 95 % interval ${o.range}` : (shown.noOverall ?? '')}${comparison.per ? `; every score per ${comparison.per.label}` : ''}`,
      ],
    },
  );
}

/** Several sides as a picture. */
export function severalPage(
  comparison: Schemas['Comparison'],
  rows: readonly ComparedRow[],
  marks: readonly { path: string; colour: string }[],
  by: ComparedBy | undefined,
  paint: PaintName,
  font: string,
): string {
  const drawn = drawRatioColumns(comparison, rows, marks, by);
  const name = `${comparison.sides.length} configurations against ${named(comparison.base)}`;
  return figurePage(drawn ?? { svg: '', width: 1, height: 1 }, drawn?.caption ?? '', paint, font, {
    name,
    more: [`Overall for ${comparison.purpose}${comparison.per ? `, every score per ${comparison.per.label}` : ''}`],
  });
}
