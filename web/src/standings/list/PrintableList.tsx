import { Link } from '@tanstack/react-router';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Fragment, useMemo, useRef, useState } from 'react';
import { MarkSign } from '../../chart/Mark.tsx';
import { PublishedSign } from '../../chart/PublishedSign.tsx';
import { classes, count, day, percent, placeOf, quantity, reading } from '../../format/format.ts';
import { named } from '../../format/named.ts';
import { useDensity } from '../../shell/density.ts';
import { slotOf, tableActions, useTable } from '../../shell/table-store.ts';
import { useHiddenColumns } from '../../ui/hidden-columns.ts';
import { RowBox, SelectionBar } from '../../ui/SelectionBar.tsx';
import { SortHeader, type Sorting } from '../../ui/SortHeader.tsx';
import { usePrinting } from '../../ui/use-printing.ts';
import { useSelection } from '../../ui/use-selection.ts';
import { useRows } from '../../ui/useRows.ts';
import { save } from '../../export/save-file.ts';
import type { Standings } from '../question/ask.ts';
import { againstBase, againstHeading, byDifferences, intervalWords } from '../question/held-against.ts';
import { publishedBetween, sorted, type ListOrder } from './list-order.ts';
import { standingsCsv } from './take-standings.ts';

const THIRDS = { UPPER: 'upper', MIDDLE: 'middle', LOWER: 'lower' } as const;

export const LIST_COLUMNS = [
  { key: 'index', label: 'Index' },
  { key: 'interval', label: '95 % interval' },
  { key: 'share', label: 'How many it beats' },
  { key: 'tests', label: 'Tests or runs' },
];
const ROW = 46;
const COMPACT_ROW = 28;

/** The ranking as a list to read from top to bottom, on paper as well. */
export function PrintableList({ standings, onWhy }: { standings: Standings; onWhy?: (id: number) => void }) {
  const table = useTable();
  const compact = useDensity() === 'compact';
  const printing = usePrinting();
  const one = standings.metric;
  const among = standings.classes.length === 0 ? 'configurations' : classes(standings.classes);
  const [sorting, setSorting] = useState<Sorting<ListOrder>>({ by: 'place', falling: false });
  const rows = useMemo(() => sorted(standings.rows, sorting), [standings, sorting]);
  const selection = useSelection(rows, (r) => r.configuration.id);
  const hidden = useHiddenColumns('standings');
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => (compact ? COMPACT_ROW : ROW),
    overscan: 12,
  });
  const { propsOf } = useRows(
    rows,
    (r) => r.configuration.id,
    [
      { key: ' ', does: 'Select the row, or not', run: (r) => selection.toggle(r) },
      { key: 't', does: 'Put it on the table', run: (r) => tableActions.toggle(r.configuration.id) },
      { key: 'Enter', does: 'Why this place', run: (r) => onWhy?.(r.configuration.id) },
    ],
    (i) => virtual.scrollToIndex(i),
  );
  const items = virtual.getVirtualItems();
  // A row that is picked and scrolled away is still one of the list; on paper all of them are.
  const shown = printing ? rows.map((_, index) => index) : items.map((v) => v.index);
  const above = printing ? 0 : (items[0]?.start ?? 0);
  const below = printing ? 0 : virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  const published = useMemo(
    () => publishedBetween(sorting.by === 'place' && !sorting.falling ? standings.published : [], rows, one),
    [standings, sorting, rows, one],
  );
  const columns = 2 + (one ? 1 : 0) + LIST_COLUMNS.filter((c) => !hidden.includes(c.key)).length;
  const heading = (by: ListOrder, words: string, right = false, fallingFirst = right) => (
    <SortHeader by={by} now={sorting} onSort={setSorting} right={right} fallingFirst={fallingFirst}>
      {words}
    </SortHeader>
  );
  return (
    <>
      <div ref={scroller} className="wide min-h-0 flex-1 overflow-auto print:overflow-visible">
        <table className="data w-full max-w-[1100px]" aria-label="Standings as a list" aria-rowcount={rows.length + 1}>
          <thead className="sticky top-0 z-10 bg-paper">
            <tr>
              {heading('place', 'Place')}
              {heading('name', 'Model and configuration')}
              {one && heading('value', one.unit === '1' ? 'Score' : one.unit, true)}
              {!hidden.includes('index') && heading('index', againstHeading(standings), true)}
              {!hidden.includes('interval') && <th className="text-right">95 % interval</th>}
              {!hidden.includes('share') && heading('share', `Among ${standings.placed} ${among}`, false, true)}
              {!hidden.includes('tests') && heading('tests', one ? 'Runs' : 'Tests', true)}
            </tr>
          </thead>
          <tbody>
            {above > 0 && (
              <tr aria-hidden="true">
                <td colSpan={columns} style={{ height: above, padding: 0, border: 0 }} />
              </tr>
            )}
            {shown.map((i) => {
              const r = rows[i]!;
              const slot = slotOf(table, r.configuration.id);
              return (
                <Fragment key={r.configuration.id}>
                  {one &&
                    published.before(i).map((p, n) => <PublishedRow key={n} of={p} metric={one} columns={columns} />)}
                  <tr
                    ref={virtual.measureElement}
                    data-index={i}
                    data-line
                    aria-rowindex={i + 2}
                    aria-selected={selection.has(r)}
                    onClick={selection.onClick(r)}
                    {...propsOf(r)}
                    className="-outline-offset-2 hover:bg-sheet aria-selected:bg-leaf-soft data-[active-row=true]:bg-band"
                  >
                    <td className="font-title text-[16px] whitespace-nowrap">{placeOf(r)}</td>
                    <td className={compact ? 'whitespace-nowrap' : ''}>
                      <span className={`flex items-center gap-1.5 ${compact ? 'inline-flex' : ''}`}>
                        <RowBox selection={selection} row={r} name={named(r.configuration)} />
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
                            aria-label={`Why this place: ${named(r.configuration)}`}
                            onClick={() => onWhy(r.configuration.id)}
                          >
                            why
                          </button>
                        )}
                      </span>
                      <span className={compact ? 'small ml-2' : 'small block'}>{r.configuration.name}</span>
                    </td>
                    {one && (
                      <td className="text-right whitespace-nowrap">
                        {r.value === undefined ? '–' : quantity(r.value, one.unit)}
                      </td>
                    )}
                    {!hidden.includes('index') && <td className="text-right">{againstBase(r, one)}</td>}
                    {!hidden.includes('interval') && (
                      <td className="text-right whitespace-nowrap">{intervalWords(r, one)}</td>
                    )}
                    {!hidden.includes('share') && <td>{positionWords(r, among, standings.placed)}</td>}
                    {!hidden.includes('tests') && (
                      <td className="text-right">{one ? r.runs : `${r.tests}/${standings.metrics.length}`}</td>
                    )}
                  </tr>
                </Fragment>
              );
            })}
            {one &&
              below <= 0 &&
              published
                .before(rows.length)
                .map((p, n) => <PublishedRow key={n} of={p} metric={one} columns={columns} />)}
            {below > 0 && (
              <tr aria-hidden="true">
                <td colSpan={columns} style={{ height: below, padding: 0, border: 0 }} />
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <SelectionBar selection={selection} what={(n) => `${count(n)} ${n === 1 ? 'row' : 'rows'} selected`}>
        <button
          className="button"
          onClick={() => {
            tableActions.lay(selection.rows.map((r) => r.configuration.id));
            selection.clear();
          }}
        >
          Put on the table
        </button>
        <button
          className="button"
          onClick={() =>
            save(
              new Blob([standingsCsv({ ...standings, rows: [...selection.rows] })], { type: 'text/csv;charset=utf-8' }),
              'standings-selected.csv',
            )
          }
        >
          Export CSV
        </button>
      </SelectionBar>
    </>
  );
}

/** What somebody published stands where its value is, without a place. */
function PublishedRow({
  of: p,
  metric,
  columns,
}: {
  of: Standings['published'][number];
  metric: NonNullable<Standings['metric']>;
  columns: number;
}) {
  return (
    <tr className="text-ink-2">
      <td>
        <PublishedSign />
      </td>
      <td>
        <Link to="/shelf/models/$modelId" params={{ modelId: String(p.modelId) }} className="hover:underline">
          {p.maker} {p.model}
        </Link>{' '}
        <span className="small">published by {p.source}</span>
      </td>
      <td className="text-right whitespace-nowrap">{reading(p.value, metric, p.resolution)}</td>
      {columns > 3 && (
        <td colSpan={columns - 3} className="small">
          {[
            p.publishedOn && day(p.publishedOn),
            p.results !== undefined && `from ${count(p.results)} ${p.results === 1 ? 'result' : 'results'}`,
            'not ranked',
          ]
            .filter(Boolean)
            .join(', ')}
        </td>
      )}
    </tr>
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
