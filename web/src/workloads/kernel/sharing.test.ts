import { expect, test } from 'vitest';
import { sharingObstacle, type Sharing } from './sharing.ts';

const ALL: Sharing = { secure: true, isolated: true, memory: true, workers: true };

test.each([
  [{ secure: false }, 'NEEDS_SECURE_CONNECTION', 'a secure connection'],
  [{ secure: false, isolated: false, memory: false }, 'NEEDS_SECURE_CONNECTION', 'a secure connection'],
  [{ isolated: false }, 'NOT_SUPPORTED', 'apart from other sites'],
  [{ isolated: false, memory: false }, 'NOT_SUPPORTED', 'apart from other sites'],
  [{ memory: false }, 'NOT_SUPPORTED', 'no memory that threads share'],
  [{ workers: false }, 'NOT_SUPPORTED', 'no workers'],
] as const)('without %o it is that which is said', (missing, reason, words) => {
  const told = sharingObstacle({ ...ALL, ...missing });
  expect(told?.reason).toBe(reason);
  expect(told?.words).toContain(words);
});

test('nothing is in the way where all is there', () => {
  expect(sharingObstacle(ALL)).toBeNull();
});
