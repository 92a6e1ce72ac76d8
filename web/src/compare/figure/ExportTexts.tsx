import type { Schemas } from '../../api/client.ts';
import { useTable } from '../../shell/table-store.ts';
import { comparisonCsv } from '../../export/csv.ts';
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
}: {
  comparison: Schemas['Comparison'];
  parts: readonly Section[];
  side: number;
}) {
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
            )
          : figure(comparison, parts, side, PAINTS[paint], font)
      }
      csv={() => comparisonCsv(comparison)}
      sentence={comparison.sides[side]?.overall?.sentence}
    />
  );
}
