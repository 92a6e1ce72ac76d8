import type { Schemas } from '../../api/client.ts';
import { agrees, references, type LiveNumber } from '../question/number-words.ts';
import type { NumberNow } from './use-answers.ts';

export type Shown = Schemas['Shown'];

/** What a piece would be published with, and what speaks against it. */
export interface Report {
  shown?: Shown | undefined;
  numbers: number;
  /** Numbers that no longer agree. */
  off: number;
  /** Its numbers as they are measured now, by their ids. */
  live?: Record<string, LiveNumber> | undefined;
  /** Why it cannot go out yet. */
  stops?: string | undefined;
}

/** The numbers of texts, frozen; those that stand for nothing stay words. */
export function reportOf(texts: readonly string[], numbers: Record<string, NumberNow>): Report {
  const found = texts.flatMap(references);
  const frozen: NonNullable<Shown['numbers']> = {};
  const live: Record<string, LiveNumber> = {};
  let off = 0;
  let waiting = false;
  for (const r of found) {
    const of = numbers[r.id];
    if (of?.state === 'known') {
      live[r.id] = of.now;
      if (!agrees(r.words, of.now)) off++;
      frozen[r.id] = {
        words: r.words.slice(0, 100),
        says: of.now.says.slice(0, 600),
        ...(of.now.value === undefined ? {} : { value: of.now.value }),
        ...(of.now.unit === undefined ? {} : { unit: of.now.unit }),
      };
    } else if (of?.state === 'waiting') waiting = true;
    else off++;
  }
  return {
    shown: Object.keys(frozen).length > 0 ? { numbers: frozen } : undefined,
    numbers: found.length,
    off,
    live,
    stops: waiting ? 'Its numbers are still looked up.' : undefined,
  };
}

/** What an edition says that would be other now. Nothing of it changes by itself. */
export function drift(frozen: Readonly<Record<string, Shown>>, reports: ReadonlyMap<number, Report>): string[] {
  return Object.entries(frozen).flatMap(([piece, then]) => {
    const now = reports.get(Number(piece));
    if (!now) return [];
    const numbers = Object.entries(then.numbers ?? {}).flatMap(([id, number]) => {
      const live = now.live?.[id];
      return live && !agrees(number.words, live) ? [`“${number.words}” would be ${live.forms[0]}`] : [];
    });
    const drawn =
      then.svg !== undefined && now.shown?.rows && JSON.stringify(then.rows) !== JSON.stringify(now.shown.rows);
    return [...numbers, ...(drawn ? [`the figure “${(then.caption ?? '').slice(0, 60)}…” would be another`] : [])];
  });
}
