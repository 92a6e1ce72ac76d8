import { expect, test } from 'vitest';
import { leftOutWords } from './left-out.ts';

const out = (suite: string, test: string, reason = 'no score') => ({ suite, test, reason });

test('a few are named, many of one suite are counted, each reason is said once', () => {
  expect(leftOutWords([out('Sluice', 'Copy'), out('Kelpline', 'Recount', 'held'), out('Sluice', 'Fill')])).toBe(
    'Copy, Fill (no score); Recount (held)',
  );
  expect(leftOutWords([...['a', 'b', 'c', 'd'].map((t) => out('Sluice', t)), out('Kelpline', 'Recount')])).toBe(
    '4 tests of Sluice, Recount (no score)',
  );
  expect(leftOutWords([])).toBe('');
});

test('a whole suite has its name', () => {
  expect(leftOutWords([out('Sluice', 'all 12 tests'), out('Kelpline', 'all 5 tests')])).toBe(
    'all of Sluice, all of Kelpline (no score)',
  );
});
