import { Choices } from './Choice.tsx';
import { hideColumns, useHiddenColumns } from './hidden-columns.ts';

/** Which columns of a list are shown. */
export function ColumnsChoice({ list, columns }: { list: string; columns: readonly { key: string; label: string }[] }) {
  const hidden = useHiddenColumns(list);
  const shown = columns.filter((c) => !hidden.includes(c.key)).map((c) => c.key);
  return (
    <span className="small whitespace-nowrap print:hidden">
      <Choices
        name="Columns"
        options={columns.map((c) => ({ value: c.key, label: c.label }))}
        values={shown}
        onChoose={(next: string[]) =>
          hideColumns(
            list,
            columns.filter((c) => !next.includes(c.key)).map((c) => c.key),
          )
        }
      >
        {shown.length === columns.length ? 'columns' : `columns, ${columns.length - shown.length} hidden`}
      </Choices>
    </span>
  );
}
