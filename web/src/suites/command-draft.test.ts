import { expect, test } from 'vitest';
import { commandOf, newCommand, stepWords, typedOf } from './command-draft.ts';

test('arguments are lines, a script is one, and what is empty is left out', () => {
  const typed = { ...newCommand(), name: 'Pack', run: { text: 'gzip\n-k\ntwo words\n\n', shell: false } };
  expect(commandOf(typed)).toEqual({
    run: { arguments: ['gzip', '-k', 'two words'], shell: false },
    expectedExit: 0,
    limitSeconds: 300,
    cache: 'WARM',
  });
  expect(commandOf({ ...typed, prepare: { text: 'a\nb\n', shell: true } }).prepare).toEqual({
    arguments: ['a\nb\n'],
    shell: true,
  });
});

test('what was made is typed again as it was', () => {
  const command = {
    run: { arguments: ['a', ' b'], shell: false },
    prepare: { arguments: ['x\ny'], shell: true },
    cleanUp: { arguments: ['rm', 'z'], shell: false },
    version: { arguments: ['a', '--version'], shell: false },
    folder: 'f',
    environment: { A: 'b=c', D: '' },
    expectedExit: 3,
    limitSeconds: 20,
    cache: 'COLD' as const,
    between: { from: 'p', to: 'q' },
    output: { kind: 'KEY' as const, expression: 'time', unit: 's', direction: 'LESS_IS_BETTER' as const },
  };
  expect(commandOf(typedOf('Pack', 'VIDEO', command))).toEqual(command);
});

test.each([
  [{ run: { text: ' \n', shell: false } }, 'what is to be timed'],
  [{ environment: 'no sign' }, '“no sign” is no NAME=value'],
  [{ expectedExit: '-1' }, 'exit code'],
  [{ limitSeconds: '1.5' }, 'time limit'],
])('%j is said', (change, words) => {
  const typed = { ...newCommand(), name: 'Pack', run: { text: 'gzip', shell: false }, ...change };
  expect(() => commandOf(typed)).toThrow(words);
});

test('a step is read as it would be typed at a shell', () => {
  expect(stepWords({ arguments: ['git', 'log', '--format=%h', 'two words'], shell: false })).toBe(
    "git log --format=%h 'two words'",
  );
});
