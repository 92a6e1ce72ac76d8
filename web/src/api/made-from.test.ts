import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { changed, MADE_FROM } from './made-from.ts';

/** Answers that no score, suite, model or unit is in. */
const OF_NONE = new Set([
  'access',
  'api-document',
  // Live: each change comes as an event.
  'bench',
  'checklists',
  'command-examples',
  'doings',
  'edition',
  'evidence',
  'formula',
  'import',
  'kept',
  'ledger-views',
  'look',
  'people',
  'reach',
  'rule-tools',
  'rule-try',
  'runner',
  'state',
  'suite-lines',
  'understand',
  'usual-sizes',
  'vocabulary',
  'write-up',
  'write-up-kinds',
  'write-ups',
]);

function keysOf(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return keysOf(path);
    if (!/\.tsx?$/.test(entry.name) || /\.test\.tsx?$/.test(entry.name)) return [];
    return [
      ...readFileSync(path, 'utf8').matchAll(
        /(?:queryKey: |const key = |const KEY = |useMemo\(\(\) => )\['([a-z-]+)'/g,
      ),
    ].map((found) => found[1]!);
  });
}

test('of every question of the program it is known what its answer is made from', () => {
  const keys = new Set(keysOf(join(import.meta.dirname, '..')));
  expect(keys.size).toBeGreaterThan(50);
  expect([...keys].filter((k) => MADE_FROM[k] === undefined && !OF_NONE.has(k))).toEqual([]);
});

test.each(['comparison', 'trends', 'why', 'standings', 'values'])(
  'a score that changed makes %s be asked again, and people not',
  async (about) => {
    const queries = new QueryClient();
    const asked: string[] = [];
    const observe = (key: string) =>
      new QueryObserver(queries, {
        queryKey: [key, 7],
        queryFn: () => {
          asked.push(key);
          return asked.length;
        },
        staleTime: Infinity,
      }).subscribe(() => {});
    const stop = [observe(about), observe('people')];
    await new Promise((r) => setTimeout(r));
    await changed(queries, 'scores');
    expect(asked.filter((k) => k === about)).toHaveLength(2);
    expect(asked.filter((k) => k === 'people')).toHaveLength(1);
    stop.forEach((s) => s());
  },
);
