import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api, value, type Schemas } from '../api/client.ts';

type TestRow = Schemas['TestRow'];

export interface SuiteOfTests {
  /** Of the suite version. */
  id: number;
  name: string;
  builtIn: boolean;
  tests: TestRow[];
}

/** Whether a device carries a test out by itself, rather than a person. */
export const byItself = (test: Pick<TestRow, 'builtIn' | 'command'>): boolean =>
  test.builtIn || test.command !== undefined;

/** Suite versions by name and number, each with its tests in the order in which they were listed. */
export function suites(rows: readonly TestRow[]): SuiteOfTests[] {
  const ids = [...new Set(rows.map((t) => t.suiteVersionId))];
  return ids
    .map((id) => {
      // Tests are numbered in the order in which they were listed.
      const tests = rows.filter((t) => t.suiteVersionId === id).sort((a, b) => a.id - b.id);
      return { id, name: `${tests[0]!.suite} ${tests[0]!.version}`, builtIn: tests[0]!.builtIn, tests };
    })
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
}

/** Suites that this shelf has results for before the others, each otherwise in its place. */
export function usedFirst(all: readonly SuiteOfTests[], measured: ReadonlySet<number>): SuiteOfTests[] {
  const used = (s: SuiteOfTests) => s.tests.some((t) => measured.has(t.id));
  return [...all.filter(used), ...all.filter((s) => !used(s))];
}

/** Tests with results, so that they are offered first. */
export function useMeasured(): ReadonlySet<number> {
  const measured = useQuery({
    queryKey: ['tests', 'measured'],
    queryFn: () => value(api.GET('/api/tests/measured')),
    staleTime: 30_000,
  });
  return useMemo(() => new Set(measured.data ?? []), [measured.data]);
}

/** Only what has every one of these words: whole suites by their name, else the tests that have them. */
export function withWords(all: readonly SuiteOfTests[], words: string): SuiteOfTests[] {
  const wanted = words
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '');
  const has = (text: string) => wanted.every((w) => text.toLowerCase().includes(w));
  return all.flatMap((s) => {
    if (has(s.name)) return [s];
    const tests = s.tests.filter((t) => has(`${s.name} ${t.name}`));
    return tests.length > 0 ? [{ ...s, tests }] : [];
  });
}

/** The test that is meant by words: the one that is called exactly so, else one whose name begins so, else the first found. */
export function bestMatch<T extends { name: string }>(tests: readonly T[], words: string): T | undefined {
  const wanted = words.trim().toLowerCase();
  const named = (fits: (name: string) => boolean) => tests.find((t) => fits(t.name.toLowerCase()));
  return named((n) => n === wanted) ?? named((n) => n.startsWith(wanted)) ?? tests[0];
}
