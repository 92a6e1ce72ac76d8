import { slotOf, type Table } from '../../shell/table-store.ts';

/** The mark of each configuration: that of the table, or, where what is compared is not on it, marks in their order. */
export function slotsOf(table: Table, ids: readonly number[]): (id: number) => number | null {
  const onTable = ids.some((id) => slotOf(table, id) !== null);
  return (id) => (onTable ? slotOf(table, id) : ids.includes(id) ? ids.indexOf(id) : null);
}
