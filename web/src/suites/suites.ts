import type { Schemas } from '../api/client.ts';

type TestRow = Schemas['TestRow'];

export interface SuiteOfTests {
  /** Of the suite version. */
  id: number;
  name: string;
  builtIn: boolean;
  tests: TestRow[];
}

/** Tests under their suite versions, by name. */
export function suites(rows: readonly TestRow[]): SuiteOfTests[] {
  const ids = [...new Set(rows.map((t) => t.suiteVersionId))];
  return ids
    .map((id) => {
      const tests = rows.filter((t) => t.suiteVersionId === id);
      return { id, name: `${tests[0]!.suite} ${tests[0]!.version}`, builtIn: tests[0]!.builtIn, tests };
    })
    .sort((a, b) => a.name.localeCompare(b.name, 'en'));
}
