import { useSyncExternalStore } from 'react';

/** Columns that a person does not want to see, by list; the browser remembers. */
const KEY = 'yarrowmark.hidden-columns';
const listeners = new Set<() => void>();
const NONE: readonly string[] = [];
let kept: Record<string, readonly string[]> | undefined;

function all(): Record<string, readonly string[]> {
  if (kept) return kept;
  try {
    const read: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}');
    kept = Object.fromEntries(
      Object.entries(read && typeof read === 'object' ? read : {}).map(([list, columns]) => [
        list,
        Array.isArray(columns) ? columns.filter((c) => typeof c === 'string') : [],
      ]),
    );
  } catch {
    kept = {};
  }
  return kept;
}

export function hideColumns(list: string, columns: readonly string[]): void {
  kept = { ...all(), [list]: columns };
  localStorage.setItem(KEY, JSON.stringify(kept));
  listeners.forEach((listener) => listener());
}

export function useHiddenColumns(list: string): readonly string[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => all()[list] ?? NONE,
  );
}

/** For tests: as if the page had been opened anew. */
export function forgetColumns(): void {
  kept = undefined;
}
