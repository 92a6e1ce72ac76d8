import type { Schemas } from '../../api/client.ts';
import { unitName } from '../../format/format.ts';

export type Answer = Schemas['TableAnswer'];
export type Layout = Schemas['TableLayout'];
export type Column = Schemas['ColumnPlan'];
export type Role = Column['role'];

/** In the order in which they are offered. */
export const ROLES: readonly { role: Role; words: string }[] = [
  { role: 'TEST', words: 'scores of a test' },
  { role: 'MODEL', words: 'the model' },
  { role: 'MAKER', words: 'the maker' },
  { role: 'FACT', words: 'a fact' },
  { role: 'MODEL_FIELD', words: 'price, weight or such' },
  { role: 'DATE', words: 'the day it was measured' },
  { role: 'DEVICE_CLASS', words: 'the class of device' },
  { role: 'UNIT', words: 'which unit of the model' },
  { role: 'SESSION', words: 'the session' },
  { role: 'NOTE', words: 'a note' },
  { role: 'CHECK', words: 'a mean or total: only checked' },
  { role: 'IGNORED', words: 'ignored' },
];

export const MODEL_FIELDS: readonly { name: string; words: string }[] = [
  { name: 'price', words: 'price' },
  { name: 'weight', words: 'weight' },
  { name: 'released', words: 'year or day of release' },
  { name: 'width', words: 'width' },
  { name: 'depth', words: 'depth' },
  { name: 'height', words: 'height' },
  { name: 'battery', words: 'battery' },
  { name: 'screen', words: 'screen' },
  { name: 'ports', words: 'ports' },
  { name: 'wireless', words: 'wireless' },
  { name: 'notes', words: 'notes' },
];

const SHORT: Partial<Record<Role, string>> = {
  MODEL: 'model',
  MAKER: 'maker',
  DEVICE_CLASS: 'class',
  UNIT: 'unit',
  DATE: 'day',
  SESSION: 'session',
  NOTE: 'note',
  CHECK: 'checked',
  IGNORED: 'ignored',
};

/** What stands over a column: "test · s, run 2". */
export function tagOf(column: Column, before: Column | undefined): string {
  if (column.role === 'FACT') return 'fact';
  if (column.role === 'MODEL_FIELD') return column.name;
  if (column.role !== 'TEST') return SHORT[column.role]!;
  if (before?.role === 'TEST' && before.name === column.name) {
    if (before.metric === column.metric) return `run ${column.run}`;
    return `its ${column.metric || 'other number'}`;
  }
  return `test · ${unitName(column.unit)}${column.metric ? `, ${column.metric}` : ''}${column.run > 1 ? `, run ${column.run}` : ''}`;
}

/** Spreadsheets count columns in letters. */
export function letter(column: number): string {
  return (column < 26 ? '' : letter(Math.floor(column / 26) - 1)) + String.fromCharCode(65 + (column % 26));
}

/** The heading over a column, of two header rows the lower one first. */
export function headingOf(answer: Answer, column: number): string {
  for (let row = answer.layout.headerTo; row >= answer.layout.headerFrom; row--) {
    const words = answer.cells[row]?.[column];
    if (words) return words;
  }
  return `Column ${letter(column)}`;
}

/** Several columns become something: a test takes each column's own heading for its name, unless it has one. */
export function withColumns(answer: Answer, columns: readonly number[], change: Partial<Column>): Layout {
  return {
    ...answer.layout,
    columns: answer.layout.columns.map((c) => {
      if (!columns.includes(c.column)) return c;
      const next = { ...c, ...change };
      if (change.role === undefined || change.role === c.role) return next;
      const isTest = change.role === 'TEST';
      return {
        column: c.column,
        role: change.role,
        name: change.name ?? (isTest ? headingOf(answer, c.column) : change.role === 'MODEL_FIELD' ? 'price' : ''),
        metric: '',
        unit: isTest ? '1' : '',
        ...(isTest && { direction: 'MORE_IS_BETTER' as const }),
        run: 1,
        group: isTest ? 'EVERYDAY' : '',
      };
    }),
  };
}

/** A row between the devices is one, or is none. */
export function withRow(layout: Layout, row: number, isDevice: boolean): Layout {
  return {
    ...layout,
    lastRow: isDevice ? Math.max(layout.lastRow, row) : layout.lastRow,
    skipped: isDevice ? layout.skipped.filter((r) => r !== row) : [...layout.skipped, row],
  };
}

/** The devices begin below this row. */
export function withHeader(layout: Layout, row: number): Layout {
  return { ...layout, headerFrom: row, headerTo: row, lastRow: Math.max(layout.lastRow, row) };
}

/** Tests whose unit and direction nothing in the sheet says. */
export function unsaidUnits(answer: Answer): string[] {
  const tests = answer.layout.columns.filter(
    (c) => c.role === 'TEST' && c.unit === '1' && c.direction === 'MORE_IS_BETTER',
  );
  return [
    ...new Set(
      tests.filter((c) => !/point|pts|score|better|more|higher/i.test(headingOf(answer, c.column))).map((c) => c.name),
    ),
  ];
}
