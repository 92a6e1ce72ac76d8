import { Link } from '@tanstack/react-router';
import type { Schemas } from '../api/client.ts';
import { MarkSign } from '../chart/Mark.tsx';
import * as format from '../format/format.ts';
import { slotOf, useTable } from '../shell/table-store.ts';
import { RowBox } from '../ui/SelectionBar.tsx';
import type { Selection } from '../ui/use-selection.ts';

type Row = Schemas['LedgerRow'];

/** A reading, or a run that gave none. */
export function LedgerLine({
  row,
  hidden,
  selection,
  index,
  active,
  onActive,
  onOpen,
  onSession,
}: {
  row: Row;
  hidden: readonly string[];
  selection: Selection<Row>;
  index: number;
  active: boolean;
  onActive: () => void;
  onOpen: () => void;
  onSession: () => void;
}) {
  const table = useTable();
  const slot = slotOf(table, row.configurationId);
  const aside = row.asideReason !== undefined;
  return (
    // The keys for this are arrows and x, on the value of the row.

    <div
      role="row"
      aria-selected={selection.has(row)}
      onClick={selection.onClick(row)}
      className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-hair-2 py-1.5 hover:bg-sheet aria-selected:bg-leaf-soft lg:grid-cols-(--columns) print:grid-cols-(--on-paper)"
    >
      <span role="cell" className="flex min-w-0 items-center gap-1.5">
        <RowBox
          selection={selection}
          row={row}
          name={`${row.model}, ${row.metric ?? row.test}, run ${row.runNumber}`}
        />
        {slot !== null && <MarkSign slot={slot} size={13} />}
        <span className="min-w-0">
          <Link
            to="/shelf/configurations/$configurationId"
            params={{ configurationId: String(row.configurationId) }}
            className="block truncate font-semibold hover:underline"
          >
            {row.maker} {row.model}
          </Link>
          <span className="small block truncate">{row.configuration}</span>
        </span>
      </span>
      <span role="cell" className="order-3 min-w-0 lg:order-none">
        <span className="block truncate">{row.metric ?? row.test}</span>
        {hidden.includes('RUN') && <span className="small">run {row.runNumber}</span>}
      </span>
      {!hidden.includes('RUN') && (
        <span role="cell" className="small order-4 lg:order-none">
          <span className="lg:hidden">run </span>
          {row.runNumber}
          {row.attempt > 1 ? `, attempt ${row.attempt}` : ''}
        </span>
      )}
      {!hidden.includes('PERSON') && (
        <span role="cell" className="small order-4 truncate lg:order-none">
          {row.person}
        </span>
      )}
      <span role="cell" className="text-right">
        {row.readingId !== undefined ? (
          <button
            data-line={index}
            tabIndex={active ? 0 : -1}
            onFocus={onActive}
            onClick={onOpen}
            className={`said text-right text-[15px] font-semibold hover:underline ${aside ? 'text-ink-3 line-through' : ''}`}
          >
            {format.reading(
              row.value!,
              { unit: row.unit, kind: row.kind, choices: row.choices?.split('\n') },
              row.resolution,
            )}
          </button>
        ) : (
          <span
            data-line={index}
            tabIndex={active ? 0 : -1}
            onFocus={onActive}
            className="pill"
            data-tone={row.state === 'FAILED' ? 'bad' : 'off'}
          >
            {format.runState(row.state)}
          </span>
        )}
      </span>
      {!hidden.includes('STATE') && (
        <span
          role="cell"
          className="small order-4 min-w-0 truncate lg:order-none"
          title={row.asideReason ?? row.reasonWords}
        >
          {row.marks.map((m) => (
            <span key={m.kind} className="pill mr-1.5" data-tone="wait" title={format.markReason(m)}>
              {format.mark(m.kind)}
            </span>
          ))}
          {aside ? (
            <>set aside: {row.asideReason}</>
          ) : (
            (row.reasonWords ?? (row.reason ? format.reason(row.reason) : ''))
          )}
        </span>
      )}
      {!hidden.includes('TIME') && (
        <span role="cell" className="order-5 hidden text-right lg:order-none lg:block print:block">
          <button className="said small hover:underline" onClick={onSession} title="This session only">
            {format.moment(row.finishedAt)}
          </button>
        </span>
      )}
    </div>
  );
}
