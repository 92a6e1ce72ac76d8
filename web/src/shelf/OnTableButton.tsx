import { MarkSign } from '../chart/Mark.tsx';
import { slotOf, tableActions, useTable } from '../shell/table-store.ts';

/** Puts a configuration on the table, or takes it off. */
export function OnTableButton({ id }: { id: number }) {
  const table = useTable();
  const slot = slotOf(table, id);
  const full = slot === null && table.entries.length >= 8;
  return (
    <button
      className="small inline-flex items-center gap-1 whitespace-nowrap underline decoration-hair underline-offset-3"
      disabled={full}
      onClick={() => tableActions.toggle(id)}
      title={full ? 'The table holds eight' : undefined}
    >
      {slot !== null && <MarkSign slot={slot} size={13} />}
      {slot === null ? 'put on the table' : 'on the table'}
    </button>
  );
}
