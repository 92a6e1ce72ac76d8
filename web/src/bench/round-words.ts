import type { Schemas } from '../api/client.ts';
import { classes, number, place, reading } from '../format/format.ts';

/** "Place 4–6 of 25 laptops, over the tests in common use." */
export function placeWords(at: Schemas['ClassPlace']): string {
  if (at.placed === 1) return `The only ${at.deviceClass.toLowerCase()} with a place so far, over ${at.over}.`;
  return `Place ${place(at.order, at.best, at.worst)} of ${at.placed} ${classes([at.deviceClass])}, over ${at.over}.`;
}

/** "Weir hash 360 (usually 398 to 403)". */
export function unusualWords(scores: readonly Schemas['RoundScore'][]): string {
  return scores
    .flatMap((s) =>
      s.usual?.outside
        ? [
            `${s.test} ${reading(s.value, s, s.resolution)} (usually ${number(s.usual.low, 3)} to ${number(s.usual.high, 3)})`,
          ]
        : [],
    )
    .join(', ');
}

/** How far its runs differ. */
export function scoreSpread(score: Pick<Schemas['RoundScore'], 'spreadPercent'>): string {
  return score.spreadPercent === undefined ? '' : `± ${number(score.spreadPercent, 2)} %`;
}
