import { Popover } from 'radix-ui';
import { useState } from 'react';
import { ColumnForm } from './ColumnForm.tsx';
import { headingOf, letter, tagOf, withHeader, withRow, type Answer, type Layout, type Role } from './columns.ts';

const FIRST_ROWS = 40;
const TINTS: Partial<Record<Role, string>> = {
  MODEL: 'bg-leaf-soft',
  MAKER: 'bg-leaf-soft',
  DEVICE_CLASS: 'bg-leaf-soft',
  UNIT: 'bg-leaf-soft',
  FACT: 'bg-band',
  MODEL_FIELD: 'bg-band',
  CHECK: 'text-ink-3',
  IGNORED: 'text-ink-3',
};

/** The sheet with what each column and row is drawn over it; any of it is changed where it stands. */
export function SheetGrid({ answer, onChange }: { answer: Answer; onChange: (layout: Layout) => void }) {
  const { layout } = answer;
  const [all, setAll] = useState(false);
  const [picked, setPicked] = useState<number[]>([]);
  const remarks = new Map(answer.remarks.map((r) => [`${r.row},${r.column}`, r]));
  const rows = answer.cells.slice(layout.headerFrom, all ? undefined : layout.headerTo + 1 + FIRST_ROWS);
  const pick = (column: number, more: boolean) =>
    setPicked(more ? [...new Set([...picked, column])].sort((a, b) => a - b) : [column]);
  const walk = (event: React.KeyboardEvent) => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const at = Number((event.target as HTMLElement).dataset['column']);
    const next = document.querySelector<HTMLElement>(`[data-column="${at + step}"]`);
    next?.focus();
    if (event.shiftKey && next) setPicked([...new Set([...picked, at, at + step])].sort((a, b) => a - b));
  };
  return (
    <div className="min-w-0">
      <div className="wide overflow-x-auto">
        <table className="sheet-grid" aria-label="The sheet as it is read">
          <thead>
            <tr>
              <td aria-hidden="true" />
              {layout.columns.map((c, i) => (
                <th key={c.column} scope="col">
                  <Popover.Root>
                    <Popover.Trigger
                      data-column={c.column}
                      className={`w-full px-2 py-1 text-left text-[12px] font-semibold whitespace-nowrap ${c.role === 'IGNORED' || c.role === 'CHECK' ? 'text-ink-3' : c.role === 'MODEL_FIELD' ? 'text-gold-ink' : 'text-leaf'} ${picked.includes(c.column) && picked.length > 1 ? 'bg-gold-soft' : ''}`}
                      aria-label={`${headingOf(answer, c.column)}, column ${letter(c.column)}: ${tagOf(c, layout.columns[i - 1])}`}
                      onKeyDown={walk}
                      onClick={(e) => {
                        if (!(picked.length > 1 && picked.includes(c.column))) pick(c.column, e.shiftKey);
                      }}
                    >
                      {tagOf(c, layout.columns[i - 1])}
                    </Popover.Trigger>
                    <Popover.Portal>
                      <Popover.Content
                        className="menu w-[min(320px,92vw)]"
                        align="start"
                        sideOffset={4}
                        aria-label="What this column is"
                      >
                        <ColumnForm
                          answer={answer}
                          columns={picked.length > 1 && picked.includes(c.column) ? picked : [c.column]}
                          onChange={onChange}
                        />
                      </Popover.Content>
                    </Popover.Portal>
                  </Popover.Root>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((cells, i) => {
              const row = layout.headerFrom + i;
              const isHeader = row <= layout.headerTo;
              const isDevice = !isHeader && row <= layout.lastRow && !layout.skipped.includes(row);
              return (
                <tr key={row} className={isDevice || isHeader ? '' : 'text-ink-3'}>
                  <th scope="row" className="px-2 text-right text-[12px] font-normal text-ink-2">
                    {isHeader ? (
                      'header'
                    ) : (
                      <RowMenu
                        row={row}
                        isDevice={isDevice}
                        onDevice={() => onChange(withRow(layout, row, !isDevice))}
                        onHeader={() => onChange(withHeader(layout, row))}
                      />
                    )}
                  </th>
                  {layout.columns.map((c) => {
                    const remark = isDevice ? remarks.get(`${row},${c.column}`) : undefined;
                    const tint = isHeader
                      ? c.role === 'TEST'
                        ? 'sheet-test font-semibold'
                        : 'font-semibold'
                      : remark
                        ? remark.kind === 'STATE'
                          ? 'bg-plum-soft'
                          : 'bg-plum-soft sheet-unread'
                        : isDevice
                          ? (TINTS[c.role] ?? '')
                          : '';
                    return (
                      <td key={c.column} className={tint} title={remark?.words}>
                        {cells[c.column] ?? ''}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {answer.rows > rows.length + layout.headerFrom && (
        <p className="small mt-1">
          {answer.rows - rows.length - layout.headerFrom} more rows{' '}
          {!all && answer.cells.length > rows.length + layout.headerFrom && (
            <button className="link" onClick={() => setAll(true)}>
              show them
            </button>
          )}
        </p>
      )}
      <p className="small mt-2 max-sm:hidden">
        Press what stands over a column to change it; arrow keys move, <kbd>Shift</kbd> selects several. Green: devices.
        Sand: facts. Blue: tests. Plum: kept as a state with its words, or not read where it is underlined.
      </p>
    </div>
  );
}

function RowMenu(props: { row: number; isDevice: boolean; onDevice: () => void; onHeader: () => void }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="min-h-6 min-w-6"
        aria-label={`Row ${props.row + 1}: ${props.isDevice ? 'a device' : 'no device'}`}
      >
        {props.row + 1}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="menu" align="start" sideOffset={4} aria-label="What this row is">
          <Popover.Close className="menu-item w-full" onClick={props.onDevice}>
            {props.isDevice ? 'This row is no device' : 'This row is a device'}
          </Popover.Close>
          <Popover.Close className="menu-item w-full" onClick={props.onHeader}>
            This row names the columns
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
