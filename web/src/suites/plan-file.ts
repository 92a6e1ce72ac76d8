import type { Schemas } from '../api/client.ts';
import { isNative } from '../workloads/registry.ts';

type TestRow = Pick<Schemas['TestRow'], 'key' | 'name' | 'suite' | 'number' | 'mode' | 'command' | 'retired'>;

/**
 * A plan that the runner carries out where there is no bench (docs/formats.md), of what it can do of a suite.
 * Whose computer it is stays open: whoever takes it there fills that in.
 */
export function planFile(tests: readonly TestRow[]): string | undefined {
  const own = tests
    .filter((t) => !t.retired)
    .flatMap((t): unknown[] =>
      t.command
        ? [{ suite: t.suite, version: t.number, mode: t.mode, test: t.name, command: t.command }]
        : isNative(t.key)
          ? [t.key]
          : [],
    );
  if (own.length === 0) return undefined;
  return JSON.stringify({ maker: '', model: '', deviceClass: 'desktop', runs: 3, tests: own }, null, 2) + '\n';
}
