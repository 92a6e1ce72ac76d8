import type { Schemas } from '../../api/client.ts';
import { isClear } from '../../format/verdict.ts';
import type { ComparedBy } from './asked.ts';
import { liveRatio } from './number-words.ts';
import type { NumberQuestion } from './questions.ts';

/** A strong or weak point that the numbers suggest; its words are the writer's to change. */
export interface Proposal {
  /** Tells it from others, so that a dropped one stays dropped. */
  key: string;
  side: 'strong' | 'weak';
  /** With {n} where the number stands. */
  words: string;
  number?: { question: NumberQuestion; words: string };
}

const MOST = 4;

/** Clear gains and losses, the largest first; what failed; and claims that were not kept. */
export function proposals(
  comparison: Schemas['Comparison'],
  claims: readonly Schemas['ClaimCheck'][],
  by?: ComparedBy,
): Proposal[] {
  const side = comparison.sides[0];
  if (!side) return [];
  const [configuration, base] = [side.configuration.id, comparison.base.id];
  const clear = comparison.rows
    .flatMap((row) => {
      const cell = row.cells[0];
      return row.metric.main && cell?.ratio !== undefined && cell.verdict && isClear(cell.verdict)
        ? [{ row, cell, ratio: cell.ratio }]
        : [];
    })
    .sort((a, b) => Math.abs(Math.log(b.ratio)) - Math.abs(Math.log(a.ratio)));
  const told = (of: 'strong' | 'weak') =>
    clear
      .filter((c) => c.ratio > 1 === (of === 'strong'))
      .slice(0, MOST)
      .map(({ row, cell }): Proposal => {
        const now = liveRatio(cell, row.metric, side.configuration, comparison, by)!;
        return {
          key: `ratio:${row.metric.id}`,
          side: of,
          words: `${row.metric.test}: {n}`,
          number: {
            question: { of: 'ratio', configuration, base, metric: row.metric.id, ...(by && { by }) },
            words: now.forms[1] ?? now.forms[0]!,
          },
        };
      });
  const failed = comparison.rows.flatMap((row): Proposal[] =>
    row.cells[0]?.ended && row.cells[0].ended.state !== 'STOPPED'
      ? [
          {
            key: `failed:${row.metric.id}`,
            side: 'weak',
            words: `${row.metric.test} ${row.cells[0].ended.state === 'COULD_NOT_RUN' ? 'could not run' : 'failed'}${row.cells[0].ended.words ? `: ${row.cells[0].ended.words}` : ''}`,
          },
        ]
      : [],
  );
  const broken = claims
    .filter((c) => c.kept === false)
    .map((c): Proposal => ({
      key: `claim:${c.claim.id}`,
      side: 'weak',
      words: `${c.claim.about}: claimed ${c.claim.shown}, found ${c.found ?? 'less'}`,
    }));
  return [...told('strong'), ...told('weak'), ...failed, ...broken];
}
