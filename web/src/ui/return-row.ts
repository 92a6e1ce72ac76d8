/**
 * Which row of a list somebody was at, by entry of the browser's history: *Back* leads to the same row, and a list that is
 * opened anew begins at its top.
 */
const rows = new Map<string, number | string>();
const MOST = 200;

function entry(): string | undefined {
  const state = window.history.state as { __TSR_key?: string } | null;
  return state?.__TSR_key;
}

export function rememberRow(key: number | string): void {
  const at = entry();
  if (at === undefined) return;
  rows.delete(at);
  rows.set(at, key);
  if (rows.size > MOST) rows.delete(rows.keys().next().value!);
}

export function rowToReturnTo(): number | string | null {
  const at = entry();
  return (at !== undefined ? rows.get(at) : undefined) ?? null;
}
