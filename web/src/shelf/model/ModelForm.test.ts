import { expect, test } from 'vitest';
import { readPrice } from './ModelForm.tsx';

test.each([
  ['1299', 1299],
  ['1 299,50', 1299.5],
  ["1'299.5", 1299.5],
  ['', undefined],
  ['  ', undefined],
])('"%s" is a price', (text, amount) => {
  expect(readPrice(text)).toBe(amount);
});

test.each(['free', '-5', '0', '1.299.000', '12,345', '1e5'])('"%s" is no price', (text) => {
  expect(readPrice(text)).toBeNull();
});
