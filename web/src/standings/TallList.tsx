import { Link } from '@tanstack/react-router';
import { MarkSign } from '../chart/Mark.tsx';
import { classes, count, percent, place, quantity } from '../format/format.ts';
import { slotOf, useTable } from '../shell/table-store.ts';
import type { Standings } from './ask.ts';
import { againstBase, againstHeading, byDifferences, intervalWords } from './held-against.ts';

const THIRDS = { UPPER: 'upper', MIDDLE: 'middle', LOWER: 'lower' } as const;

/** The ranking as a list to read from top to bottom, on paper as well. */
export function TallList({ standings, onWhy }: { standings: Standings; onWhy?: (id: number) => void }) {
  const table = useTable();
  const one = standings.metric;
  const among = standings.classes.length === 0 ? 'configurations' : classes(standings.classes);
  return (
    <div className="wide min-h-0 flex-1 overflow-auto print:overflow-visible">
      <table className="data w-full max-w-[1100px]" aria-label="Standings as a list">
        <thead>
          <tr>
            <th>Place</th>
            <th>Model and configuration</th>
            {one && <th className="!text-right">{one.unit === '1' ? 'Score' : one.unit}</th>}
            <th className="!text-right">{againstHeading(standings)}</th>
            <th className="!text-right">95 % interval</th>
            <th>
              Among {standings.placed} {among}
            </th>
            <th className="!text-right">{one ? 'Runs' : 'Tests'}</th>
          </tr>
        </thead>
        <tbody>
          {standings.rows.map((r) => {
            const slot = slotOf(table, r.configuration.id);
            return (
              <tr key={r.configuration.id} data-line>
                <td className="font-title text-[16px] whitespace-nowrap">
                  {r.placeBest === undefined ? '–' : place(r.placeBest, r.placeWorst!)}
                </td>
                <td>
                  <span className="flex items-center gap-1.5">
                    {slot !== null && <MarkSign slot={slot} size={13} />}
                    <Link
                      to="/shelf/configurations/$configurationId"
                      params={{ configurationId: String(r.configuration.id) }}
                      className="font-semibold hover:underline"
                    >
                      {r.configuration.maker} {r.configuration.model}
                    </Link>
                    {onWhy && !byDifferences(one) && r.status !== 'NOT_LINKED' && (
                      <button
                        className="small link print:hidden"
                        aria-label={`Why this place: ${r.configuration.maker} ${r.configuration.model}`}
                        onClick={() => onWhy(r.configuration.id)}
                      >
                        why
                      </button>
                    )}
                  </span>
                  <span className="small block">{r.configuration.name}</span>
                </td>
                {one && (
                  <td className="text-right whitespace-nowrap">
                    {r.value === undefined ? '–' : quantity(r.value, one.unit)}
                  </td>
                )}
                <td className="text-right">{againstBase(r, one)}</td>
                <td className="text-right whitespace-nowrap">{intervalWords(r, one)}</td>
                <td>{positionWords(r, among, standings.placed)}</td>
                <td className="text-right">{one ? r.runs : `${r.tests}/${standings.metrics.length}`}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** "beats 82 % of 33 others, upper third". */
export function positionWords(
  r: Pick<Standings['rows'][number], 'status' | 'percentile' | 'third'>,
  among: string,
  placed: number,
): string {
  if (r.status === 'PROVISIONAL') return 'provisional: under half of the weight';
  if (r.status === 'NOT_LINKED') return 'no chain of shared tests leads to the base';
  if (r.percentile === undefined) return '';
  return `beats ${percent(r.percentile)} of the ${count(placed - 1)} other ${among}${r.third === undefined ? '' : `, ${THIRDS[r.third]} third`}`;
}
