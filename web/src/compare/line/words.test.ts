import { expect, test } from 'vitest';
import { sentence, type Words } from './words.ts';

const words = (data: Words['data']) => ({ data }) as Words;

test('a sentence is found by its line and side, and is nothing where there is none or not yet', () => {
  const told = words([
    { metricId: 4, sentences: ['', 'Pack: Petrel takes 3.0 % less time.'] },
    { metricId: 9, sentences: ['Weir: Petrel is 2.0 % higher.', ''] },
  ]);
  expect(sentence(told, 4, 1)).toBe('Pack: Petrel takes 3.0 % less time.');
  expect(sentence(told, 9, 0)).toBe('Weir: Petrel is 2.0 % higher.');
  expect(sentence(told, 4, 0)).toBeUndefined();
  expect(sentence(told, 5, 0)).toBeUndefined();
  expect(sentence(words(undefined), 4, 1)).toBeUndefined();
});
