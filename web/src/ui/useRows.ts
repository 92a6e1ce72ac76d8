import { useEffect, useRef, useState, type FocusEvent } from 'react';
import { useKeys } from '../shell/keys.ts';
import { rememberRow, rowToReturnTo } from './return-row.ts';

/** What makes an element a row of a list that is walked through with the arrow keys. */
export interface RowProps {
  'data-active-row': boolean;
  tabIndex: 0 | -1;
  onFocus: (event: FocusEvent) => void;
}

/**
 * Walks through a list with the arrow keys. The row that is marked has the focus, so that a screen reader says it; Tab
 * comes back to it. The list may change under it.
 *
 * @param bring for lists that draw only what is seen: makes the row at this place one of those
 */
export function useRows<T>(
  rows: readonly T[],
  keyOf: (row: T) => number | string,
  actions: { key: string; does: string; changes?: true; run: (row: T) => void }[],
  bring?: (index: number) => void,
): { active: T | undefined; propsOf: (row: T) => RowProps } {
  const [at, setAt] = useState<number | string | null>(rowToReturnTo);
  /** Whether the marked row is to have the focus as soon as it is there. */
  const walked = useRef(at !== null);
  const index = rows.findIndex((row) => keyOf(row) === at);
  const active = index >= 0 ? rows[index] : undefined;
  const move = (step: number) => {
    const next =
      rows[Math.min(rows.length - 1, Math.max(0, index < 0 ? (step > 0 ? 0 : rows.length - 1) : index + step))];
    if (next === undefined) return;
    walked.current = true;
    bring?.(rows.indexOf(next));
    setAt(keyOf(next));
    // Where it is marked already, nothing is drawn anew, and the focus may have been elsewhere.
    if (keyOf(next) === at) focusMarked();
  };
  useKeys([
    { key: 'ArrowDown', does: 'Next row', run: () => move(1) },
    { key: 'ArrowUp', does: 'Row before', run: () => move(-1) },
    ...actions.map((a) => ({
      key: a.key,
      does: a.does,
      ...(a.changes ? { changes: a.changes } : {}),
      run: () => {
        if (active !== undefined) a.run(active);
      },
    })),
  ]);
  const there = active !== undefined;
  useEffect(() => {
    if (at === null || !there || !walked.current) return;
    walked.current = false;
    // Where only what is seen is drawn, the row is there one frame later.
    if (!focusMarked()) requestAnimationFrame(() => requestAnimationFrame(focusMarked));
  }, [at, there]);
  return {
    active,
    propsOf: (row) => {
      const marked = active === undefined ? row === rows[0] : keyOf(row) === at;
      return {
        'data-active-row': active !== undefined && marked,
        tabIndex: marked ? 0 : -1,
        onFocus: (event) => {
          // A link in a row leads away from it, and Back to it.
          rememberRow(keyOf(row));
          if (event.target === event.currentTarget) setAt(keyOf(row));
        },
      };
    },
  };
}

function focusMarked(): boolean {
  const marked = document.querySelector<HTMLElement>('[data-active-row="true"]');
  marked?.focus({ preventScroll: true });
  marked?.scrollIntoView({ block: 'nearest' });
  return marked !== null;
}
