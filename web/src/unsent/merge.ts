import { diff3Merge } from 'node-diff3';

/** What two people made of the same thing is not one thing any more. */
const APART = Symbol('apart');

/**
 * One out of what two people made of the same body: fields that one of them changed, and of a text that both changed the
 * sentences of each.
 *
 * @returns null where both changed the same
 */
export function merged<T>(base: T, mine: T, theirs: T): T | null {
  const made = both(base, mine, theirs);
  return made === APART ? null : (made as T);
}

function both(base: unknown, mine: unknown, theirs: unknown): unknown {
  if (same(mine, theirs) || same(base, theirs)) return mine;
  if (same(base, mine)) return theirs;
  if (typeof base === 'string' && typeof mine === 'string' && typeof theirs === 'string')
    return sentences(base, mine, theirs);
  if (!isRecord(base) || !isRecord(mine) || !isRecord(theirs)) return APART;
  const made: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const field = both(base[key], mine[key], theirs[key]);
    if (field === APART) return APART;
    if (field !== undefined) made[key] = field;
  }
  return made;
}

function sentences(base: string, mine: string, theirs: string): string | typeof APART {
  let made = '';
  for (const region of diff3Merge(split(mine), split(base), split(theirs), { excludeFalseConflicts: true })) {
    if (!region.ok) return APART;
    made += region.ok.join('');
  }
  return made;
}

/** Sentences and what stands between them in turns: joined they are the text again. */
const split = (text: string) => text.split(/(\s*\n\s*|(?<=[.!?…])\s+)/u);

const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);
const isRecord = (of: unknown): of is Record<string, unknown> =>
  typeof of === 'object' && of !== null && !Array.isArray(of);
