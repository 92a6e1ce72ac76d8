interface LeftOut { test: string; suite: string; reason: string }

/** More tests of one suite than this, left out for one reason, are counted rather than named. */
const NAMED = 3;

/** What takes no part, with the reason; many of one suite in a few words. */
export function leftOutWords(leftOut: readonly LeftOut[]): string {
  const groups = new Map<string, LeftOut[]>();
  for (const l of leftOut) {
    const key = `${l.suite}\n${l.reason}`;
    groups.set(key, [...(groups.get(key) ?? []), l]);
  }
  return [...groups.values()]
    .map((of) => `${of.length > NAMED ? `${of.length} tests of ${of[0]!.suite}` : of.map((l) => l.test).join(', ')} (${of[0]!.reason})`)
    .join('; ');
}
