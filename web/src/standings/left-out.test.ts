import { expect, test } from 'vitest';
import { leftOutWords } from './left-out.ts';

const out = (suite: string, test: string, reason = 'no score') => ({ suite, test, reason });

test('a few are named, many of one suite are counted, each reason is said once', () => {
  expect(leftOutWords([out('Sluice', 'Copy'), out('Sluice', 'Fill'), out('Kelpline', 'Recount', 'held')])).toBe('Copy, Fill (no score); Recount (held)');
  expect(leftOutWords(['a', 'b', 'c', 'd'].map((t) => out('Sluice', t)))).toBe('4 tests of Sluice (no score)');
  expect(leftOutWords([])).toBe('');
});
