import { expect, test } from 'vitest';
import { readGigabytes } from './Setup.tsx';

test.each([['16', 2 ** 34], ['16 GB', 2 ** 34], ['16gib', 2 ** 34], ['0,5 GB', 2 ** 29], ['512 MB', 2 ** 29]])('%s of memory', (text, bytes) => {
  expect(readGigabytes(text)).toBe(String(bytes));
});

test.each(['', 'much', '16 TB or so', '-4', '1e9', '0'])('"%s" is no amount of memory', (text) => {
  expect(readGigabytes(text)).toBeNull();
});
