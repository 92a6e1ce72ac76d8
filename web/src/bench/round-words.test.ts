import { expect, test } from 'vitest';
import type { Schemas } from '../api/client.ts';
import { placeWords, scoreSpread, unusualWords } from './round-words.ts';

test('a place is said with how many there are, and over what', () => {
  expect(placeWords({ order: 4, best: 4, worst: 6, placed: 25, deviceClass: 'LAPTOP', over: 'every test' })).toBe(
    'Place 4 (4 to 6) of 25 laptops, over every test.',
  );
  expect(placeWords({ order: 1, best: 1, worst: 1, placed: 1, deviceClass: 'BOARD', over: 'every test' })).toBe(
    'The only board with a place so far, over every test.',
  );
});

test('only what left its usual range is told', () => {
  const score = (test: string, outside?: boolean) =>
    ({
      test,
      value: 360,
      unit: 'ops/s',
      kind: 'NUMBER',
      resolution: 1,
      ...(outside === undefined ? {} : { usual: { low: 398, high: 403, outside } }),
    }) as unknown as Schemas['RoundScore'];
  expect(unusualWords([score('Weir', true), score('Sort', false), score('List')])).toBe(
    'Weir 360 ops/s (usually 398 to 403)',
  );
  expect(unusualWords([])).toBe('');
  expect(scoreSpread({})).toBe('');
  expect(scoreSpread({ spreadPercent: 1.234 })).toBe('± 1.2 %');
});
