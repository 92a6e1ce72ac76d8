import type { Schemas } from '../api/client.ts';
import { classes, number, place } from '../format/format.ts';

/** "Place 4–6 of 25 laptops, over the tests in common use." */
export function placeWords(at: Schemas['ClassPlace']): string {
  if (at.placed === 1) return `The only ${at.deviceClass.toLowerCase()} with a place so far, over ${at.over}.`;
  return `Place ${place(at.best, at.worst)} of ${at.placed} ${classes([at.deviceClass])}, over ${at.over}.`;
}

/** How far its runs differ. */
export function scoreSpread(score: Pick<Schemas['RoundScore'], 'spreadPercent'>): string {
  return score.spreadPercent === undefined ? '' : `± ${number(score.spreadPercent, 2)} %`;
}
