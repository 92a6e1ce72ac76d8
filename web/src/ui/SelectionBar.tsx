import type { ReactNode } from 'react';
import type { Selection } from './use-selection.ts';

/** What can be done with the rows that are picked. */
export function SelectionBar<T>({
  selection,
  what,
  children,
}: {
  selection: Selection<T>;
  what: (n: number) => string;
  children: ReactNode;
}) {
  if (selection.rows.length === 0) return null;
  return (
    <div
      role="toolbar"
      aria-label="Selected rows"
      className="sticky bottom-0 z-10 mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-hair bg-sheet px-3 py-1.5 print:hidden"
    >
      <span role="status" className="font-semibold">
        {what(selection.rows.length)}
      </span>
      {children}
      <button className="small link ml-auto" onClick={selection.clear}>
        Clear the selection
      </button>
    </div>
  );
}

/** The box before a row. */
export function RowBox<T>({ selection, row, name }: { selection: Selection<T>; row: T; name: string }) {
  return (
    <input
      type="checkbox"
      className="accent-leaf print:hidden"
      tabIndex={-1}
      aria-label={`Select ${name}`}
      checked={selection.has(row)}
      onClick={(e) => selection.toggle(row, e.shiftKey)}
      readOnly
    />
  );
}
