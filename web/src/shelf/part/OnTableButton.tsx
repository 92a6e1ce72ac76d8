import { MarkSign } from '../../chart/Mark.tsx';
import { slotOf, tableActions, useTable } from '../../shell/table-store.ts';

/** Puts a configuration on the table, or takes it off. */
export function OnTableButton({ id }: { id: number }) {
  const table = useTable();
  const slot = slotOf(table, id);
  return (
    <button
      className="small inline-flex items-center gap-1 whitespace-nowrap underline decoration-hair underline-offset-3"
      onClick={() => tableActions.toggle(id)}
      aria-pressed={slot !== null}
    >
      {slot !== null && <MarkSign slot={slot} size={13} />}
      {slot === null ? 'put on the table' : 'on the table'}
    </button>
  );
}
