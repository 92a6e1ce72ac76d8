interface LeftOut {
  test: string;
  suite: string;
  reason: string;
}

/** More tests of one suite than this, left out for one reason, are counted rather than named. */
const NAMED = 3;

/** What takes no part: each reason once, with the tests it is about; many of one suite in a few words. */
export function leftOutWords(leftOut: readonly LeftOut[]): string {
  return [...grouped(leftOut, (l) => l.reason)]
    .map(
      ([reason, all]) =>
        `${[...grouped(all, (l) => l.suite)].map(([suite, of]) => ofSuite(suite, of)).join(', ')} (${reason})`,
    )
    .join('; ');
}

function ofSuite(suite: string, of: readonly LeftOut[]): string {
  if (of.length > NAMED) return `${of.length} tests of ${suite}`;
  return of.map((l) => (/^all \d+ tests$/.test(l.test) ? `all of ${suite}` : l.test)).join(', ');
}

function grouped(all: readonly LeftOut[], by: (l: LeftOut) => string): Map<string, LeftOut[]> {
  const groups = new Map<string, LeftOut[]>();
  for (const l of all) groups.set(by(l), [...(groups.get(by(l)) ?? []), l]);
  return groups;
}
