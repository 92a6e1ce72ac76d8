import { useEffect, useState } from 'react';
import { useKeys } from '../shell/keys.ts';

/** Moves a mark through a list with the arrow keys. The list may change under it. */
export function useRows<T>(
  rows: readonly T[],
  keyOf: (row: T) => number | string,
  actions: { key: string; does: string; run: (row: T) => void }[],
): T | undefined {
  const [at, setAt] = useState<number | string | null>(null);
  const index = rows.findIndex((row) => keyOf(row) === at);
  const active = index >= 0 ? rows[index] : undefined;
  const move = (step: number) => {
    const next =
      rows[Math.min(rows.length - 1, Math.max(0, index < 0 ? (step > 0 ? 0 : rows.length - 1) : index + step))];
    if (next !== undefined) setAt(keyOf(next));
  };
  useKeys([
    { key: 'ArrowDown', does: 'Next row', run: () => move(1) },
    { key: 'ArrowUp', does: 'Row before', run: () => move(-1) },
    ...actions.map((a) => ({
      key: a.key,
      does: a.does,
      run: () => {
        if (active !== undefined) a.run(active);
      },
    })),
  ]);
  useEffect(() => {
    if (at !== null) document.querySelector('[data-active-row="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return active;
}
