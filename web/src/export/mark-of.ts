import { markColour, markPath } from '../chart/Mark.tsx';
import type { PaintName } from './page.ts';
import { tokens } from './screen-figure.ts';

/** The table's mark in the colour it has on that paper, for a picture that takes no style sheet along. */
export function markOf(slot: number | null, paint: PaintName): { path: string; colour: string } {
  return {
    path: markPath(slot, 7),
    colour: tokens(paint === 'dark' ? 'dark' : 'light')(/--[\w-]+/.exec(markColour(slot))![0]),
  };
}
