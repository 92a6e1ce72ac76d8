import type { Schemas } from '../../api/client.ts';
import { useTable } from '../../shell/table-store.ts';
import { comparisonCsv } from '../../export/csv.ts';
import { byWords, type ComparedBy } from '../../writeup/question/asked.ts';
import { figure, figureOfSeveral } from './figure.ts';
import { markOf } from '../../export/mark-of.ts';
import type { Section } from '../line/order.ts';
import { PAINTS } from '../../export/page.ts';
import { slotsOf } from '../line/slots.ts';
import { ExportMenu } from '../../export/ExportMenu.tsx';
import { named } from '../../format/named.ts';

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
  const slots = slotsOf(useTable(), [comparison.base.id, ...comparison.sides.map((s) => s.configuration.id)]);
  return (
    <ExportMenu
      name={`${several ? `${comparison.sides.length} configurations` : named(comparison.sides[side]!.configuration)} against ${named(comparison.base)}`}
      draw={(paint, font) =>
        several
          ? figureOfSeveral(
              comparison,
              parts,
              comparison.sides.map((s) => markOf(slots(s.configuration.id), paint)),
              PAINTS[paint],
              font,
              narrowed,
            )
          : figure(comparison, parts, side, PAINTS[paint], font, narrowed)
      }
      csv={() => comparisonCsv(comparison)}
      sentence={overall && narrowed ? `${overall.replace(/\.$/, '')}, ${narrowed}.` : overall}
    />
  );
}
