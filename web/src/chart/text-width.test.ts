import { expect, test } from 'vitest';
import { fitted, textWidth } from './text-width.ts';

test('words that fit stay whole, and others end where there is no more room', () => {
  expect(fitted('Sort', 100, 14)).toBe('Sort');
  const cut = fitted('Sequential read of a very large file', 100, 14);
  expect(cut.endsWith('…')).toBe(true);
  expect(textWidth(cut, 14)).toBeLessThanOrEqual(100);
  expect(textWidth(`${cut.slice(0, -1)}xx…`, 14)).toBeGreaterThan(100);
});

test('a room that holds nothing still shows a beginning', () => {
  expect(fitted('Sort', 0, 14)).toBe('S…');
  expect(fitted('', 0, 14)).toBe('');
});
