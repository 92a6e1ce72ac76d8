import { expect, test } from 'vitest';
import { howMeasured } from './how.ts';

const plain = {
  kind: 'NUMBER',
  choices: [],
  unit: 'MB/s',
  direction: 'MORE_IS_BETTER',
  capped: false,
  main: true,
} as const;

test.each([
  [{ ...plain, choices: [] }, 'MB/s, more is better'],
  [{ ...plain, choices: [], kind: 'CHECK' as const }, 'passed or failed'],
  [{ ...plain, choices: ['720p', '1080p'], kind: 'CHOICE' as const }, '720p < 1080p'],
  [{ ...plain, choices: [], kind: 'CURVE' as const, xUnit: 'B' }, 'curve over B, MB/s, more is better'],
  [{ ...plain, choices: [], unit: 'fps', capped: true }, 'fps, more is better, a display may hold it'],
  [{ ...plain, choices: [], unit: '1', main: false }, 'points, more is better, a part'],
  [{ ...plain, choices: [], main: false, formula: 'a - b' }, 'computed, MB/s, more is better'],
])('%o', (metric, words) => {
  expect(howMeasured(metric)).toBe(words);
});
