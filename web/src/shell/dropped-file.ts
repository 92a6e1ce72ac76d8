import { useSyncExternalStore } from 'react';

/** A table that was dropped or pasted on any view, until the view that reads it has taken it. */
let waiting: File | null = null;
const listeners = new Set<() => void>();

export const SPREADSHEET = /\.(xlsx|ods|csv|tsv)$/i;

export function offer(file: File): void {
  waiting = file;
  listeners.forEach((l) => l());
}

export function takeDropped(): File | null {
  const file = waiting;
  waiting = null;
  return file;
}

export function useDropped(): File | null {
  return useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => waiting,
  );
}

/** Cells that were copied come as text with tabs, a row a line; anything else is no table. */
export function pastedFile(text: string): File | null {
  const lines = text.split(/\r?\n/).filter((l) => l.trim() !== '');
  return lines.length > 1 && lines.filter((l) => /[\t;,|]/.test(l)).length * 2 > lines.length
    ? new File([text], 'Pasted table.tsv', { type: 'text/tab-separated-values' })
    : null;
}
