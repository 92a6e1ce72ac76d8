import type { Schemas } from '../api/client.ts';
import { testGroup, type TestGroup } from './format.ts';

type Rows = readonly Pick<Schemas['ComparedRow'], 'metric'>[];

/** What a key of a part that is left out stands for. */
export function partWords(key: string, rows: Rows): string {
  const [kind, of] = [key.slice(0, key.indexOf(':')), key.slice(key.indexOf(':') + 1)];
  if (kind === 'group') return testGroup(of as TestGroup);
  const metric = rows.find((r) => String(kind === 'suite' ? r.metric.suiteVersionId : r.metric.testId) === of)?.metric;
  if (!metric) return kind === 'suite' ? 'a suite' : 'a test';
  return kind === 'suite' ? `${metric.suite} ${metric.version}` : metric.test;
}

/** With this part left out as well, or taken in again. */
export function toggled(without: readonly string[] | undefined, key: string): string[] | undefined {
  const now = without ?? [];
  const next = now.includes(key) ? now.filter((k) => k !== key) : [...now, key];
  return next.length > 0 ? next : undefined;
}
