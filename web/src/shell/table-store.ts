import { useSyncExternalStore } from 'react';
import { MARKS } from '../chart/Mark.tsx';

/** A configuration on the table keeps its slot, and with it its colour and shape, until it is taken off. */
export interface OnTable {
  id: number;
  slot: number;
}

export interface Table {
  entries: readonly OnTable[];
  base: number | null;
  /** Lit up on every rail; passing, not kept. */
  lit: number | null;
  /** The last one that was to go on it found no room; passing, not kept. */
  refused?: boolean;
}

const EMPTY: Table = { entries: [], base: null, lit: null };

export function put(table: Table, id: number): Table {
  if (table.entries.some((e) => e.id === id) || table.entries.length >= MARKS) return table;
  const slot = Array.from({ length: MARKS }, (_, i) => i).find((i) => table.entries.every((e) => e.slot !== i))!;
  return { ...table, entries: [...table.entries, { id, slot }] };
}

export function take(table: Table, id: number): Table {
  return {
    entries: table.entries.filter((e) => e.id !== id),
    base: table.base === id ? null : table.base,
    lit: table.lit === id ? null : table.lit,
  };
}

export function read(text: string | null): Table {
  try {
    const kept = JSON.parse(text ?? '') as { entries: OnTable[]; base: number | null };
    const entries = kept.entries.filter(
      (e, i, all) =>
        Number.isSafeInteger(e.id) &&
        e.slot >= 0 &&
        e.slot < MARKS &&
        all.findIndex((o) => o.id === e.id || o.slot === e.slot) === i,
    );
    return { entries, base: entries.some((e) => e.id === kept.base) ? kept.base : null, lit: null };
  } catch {
    // Nothing kept, or something that is no table: start with an empty one.
    return EMPTY;
  }
}

const KEY = 'yarrowmark.table';
let table: Table | null = null;
const listeners = new Set<() => void>();

function current(): Table {
  return (table ??= read(localStorage.getItem(KEY)));
}

function change(next: Table): void {
  table = next;
  localStorage.setItem(KEY, JSON.stringify({ entries: next.entries, base: next.base }));
  listeners.forEach((listener) => listener());
}

export const tableActions = {
  /** Puts it on the table, or takes it off where it is on it. Answers whether there was room. */
  toggle: (id: number): boolean => {
    const before = current();
    const next = before.entries.some((e) => e.id === id) ? take(before, id) : put(before, id);
    change({ ...next, refused: next === before });
    return next !== before;
  },
  /** Puts several on the table, as far as there is room; those that are on it stay. */
  lay: (ids: readonly number[]) => {
    const before = current();
    const next = ids.reduce(put, before);
    change({ ...next, refused: ids.some((id) => !next.entries.some((e) => e.id === id)) });
  },
  take: (id: number) => change({ ...take(current(), id), refused: false }),
  makeBase: (id: number) => {
    const next = put(current(), id);
    const there = next.entries.some((e) => e.id === id);
    change(there ? { ...next, base: id, refused: false } : { ...next, refused: true });
  },
  light: (id: number | null) => change({ ...current(), lit: id }),
  seen: () => change({ ...current(), refused: false }),
};

export function useTable(): Table {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, current);
}

export function slotOf(on: Table, id: number): number | null {
  return on.entries.find((e) => e.id === id)?.slot ?? null;
}
