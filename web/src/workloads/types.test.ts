import { expect, test } from 'vitest';
import { ContextLost, type FailureReason, failureOf, NoSpace, reasonOf, WrongAnswer } from './types.ts';

test.each([
  [new WrongAnswer('no'), WrongAnswer, 'WRONG_ANSWER'],
  [new ContextLost('gone'), ContextLost, 'CONTEXT_LOST'],
  [new NoSpace('full'), NoSpace, 'NO_SPACE'],
] as const)('%s keeps its kind and its words on the way out of a worker', (error, kind, reason) => {
  expect(reasonOf(error)).toBe(reason);
  // What crosses the border is text alone.
  const sent = JSON.parse(JSON.stringify({ message: error.message, reason: reasonOf(error) })) as { message: string; reason: FailureReason };
  const there = failureOf(sent.message, sent.reason);
  expect(there).toBeInstanceOf(kind);
  expect(there.message).toBe(error.message);
});

test('any other failure is one without a reason', () => {
  expect(reasonOf(new Error('x'))).toBeUndefined();
  expect(reasonOf('x')).toBeUndefined();
  const there = failureOf('x');
  expect(there.message).toBe('x');
  expect(reasonOf(there)).toBeUndefined();
});
