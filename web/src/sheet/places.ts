import type { Schemas } from '../api/client.ts';

export type Sheet = Schemas['Sheet'];
export type SheetTest = Sheet['tests'][number];
export type SheetRun = SheetTest['runs'][number];

/** One place of the sheet: a run of a test. */
export interface Place {
  row: number;
  run: number;
}

type Shape = readonly { runs: readonly Pick<SheetRun, 'state' | 'aside'>[] }[];

export function isEmpty(run: Pick<SheetRun, 'state' | 'aside'>): boolean {
  return run.state === undefined || run.aside;
}

/** The arrow keys; at an edge it stays where it is. */
export function moved(shape: Shape, from: Place, key: string): Place {
  const row = Math.min(
    shape.length - 1,
    Math.max(0, from.row + (key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0)),
  );
  const last = (shape[row]?.runs.length ?? 1) - 1;
  return {
    row,
    run: Math.min(last, Math.max(0, from.run + (key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0))),
  };
}

/**
 * Where Enter goes on: the next empty run of this test, then of the tests below, then from the top again; the place
 * itself where nothing is empty.
 */
export function next(shape: Shape, from: Place): Place {
  const places = shape.flatMap((test, row) => test.runs.map((r, run) => ({ row, run, empty: isEmpty(r) })));
  const at = places.findIndex((p) => p.row === from.row && p.run === from.run);
  const found = [...places.slice(at + 1), ...places.slice(0, Math.max(0, at))].find((p) => p.empty);
  return found ? { row: found.row, run: found.run } : from;
}

/** What begins a score: a digit, a sign, a decimal point, or the n of "n/a" and other words; where words are wanted, any letter. */
export function startsScore(key: string, kind = 'NUMBER'): boolean {
  return kind === 'CHECK' || kind === 'CHOICE' ? /^[\p{L}\d–−-]$/u.test(key) : /^[\d.,–−nNcf-]$/.test(key);
}

export function isSeries(test: SheetTest): boolean {
  return test.metric.kind === 'CURVE' || test.metric.kind === 'FRAME_TIMES';
}
