import type { RailScale } from './Rail.tsx';

/** A tick of a rail: where it is, and what it stands for. */
export interface Tick {
  x: number;
  id: number;
}

/** Everything that stands on a rail, from the worst to the best. */
export function ticksOf(merits: readonly { id: number; merit: number }[], scale: RailScale): Tick[] {
  return merits.map((m) => ({ x: scale.x(m.merit), id: m.id })).sort((a, b) => a.x - b.x);
}

/** Position in the list of the tick that is nearest, within so many pixels; −1 where none is. */
export function nearest(ticks: readonly Tick[], x: number, within = 6): number {
  let low = 0;
  let high = ticks.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ticks[middle]!.x < x) low = middle + 1;
    else high = middle;
  }
  const candidates = [low - 1, low].filter((i) => i >= 0 && i < ticks.length);
  const best = candidates.sort((a, b) => Math.abs(ticks[a]!.x - x) - Math.abs(ticks[b]!.x - x))[0];
  return best !== undefined && Math.abs(ticks[best]!.x - x) <= within ? best : -1;
}
