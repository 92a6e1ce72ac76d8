import { useRef, useState, type MouseEvent } from 'react';

/** Rows that somebody picked, to do one thing with all of them. */
export interface Selection<T> {
  /** In the order they were picked. */
  readonly rows: readonly T[];
  has: (row: T) => boolean;
  /** Adds or removes one; with the shift key, everything from the last one picked to this. */
  toggle: (row: T, range?: boolean) => void;
  clear: () => void;
  /** For a row: a click picks it alone, Ctrl one more, Shift a stretch. Links and buttons in it stay what they are. */
  onClick: (row: T) => (event: MouseEvent) => void;
}

/** @param shown rows on the screen, in their order; what was picked on another page stays picked */
export function useSelection<T>(shown: readonly T[], keyOf: (row: T) => number | string): Selection<T> {
  const [picked, setPicked] = useState<ReadonlyMap<number | string, T>>(new Map());
  const anchor = useRef<number | string | null>(null);
  const toggle = (row: T, range = false) => {
    const next = new Map(picked);
    const from = shown.findIndex((r) => keyOf(r) === anchor.current);
    const to = shown.findIndex((r) => keyOf(r) === keyOf(row));
    if (range && from >= 0 && to >= 0)
      for (const r of shown.slice(Math.min(from, to), Math.max(from, to) + 1)) next.set(keyOf(r), r);
    else {
      if (!next.delete(keyOf(row))) next.set(keyOf(row), row);
      anchor.current = keyOf(row);
    }
    setPicked(next);
  };
  return {
    rows: [...picked.values()],
    has: (row) => picked.has(keyOf(row)),
    toggle,
    clear: () => {
      anchor.current = null;
      setPicked(new Map());
    },
    onClick: (row) => (event) => {
      if ((event.target as HTMLElement).closest('a, button, input, label')) return;
      if (event.shiftKey || event.ctrlKey || event.metaKey) {
        event.preventDefault();
        toggle(row, event.shiftKey);
      } else {
        anchor.current = keyOf(row);
        setPicked(picked.size === 1 && picked.has(keyOf(row)) ? new Map() : new Map([[keyOf(row), row]]));
      }
    },
  };
}
