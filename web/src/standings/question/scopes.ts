import type { Schemas } from '../../api/client.ts';

type Test = Schemas['TestRow'];

/** Tests that can be ranked by ratios, with the metrics for it. */
export function ranked(tests: readonly Test[] | undefined): Test[] {
  return (tests ?? [])
    .filter((t) => !t.retired)
    .map((t) => ({ ...t, metrics: t.metrics.filter((m) => m.scale === 'RATIO') }))
    .filter((t) => t.metrics.length > 0);
}

/** The suite versions that these tests are in, each once. */
export function suitesOf(tests: readonly Test[]): { id: number; name: string; tests: number }[] {
  const found = new Map<number, { id: number; name: string; tests: number }>();
  for (const t of tests) {
    const id = t.metrics[0]!.suiteVersionId;
    const suite = found.get(id) ?? { id, name: `${t.suite} ${t.version}`, tests: 0 };
    found.set(id, { ...suite, tests: suite.tests + 1 });
  }
  return [...found.values()];
}
