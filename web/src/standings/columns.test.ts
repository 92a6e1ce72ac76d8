import { expect, test } from 'vitest';
import { columns } from './columns.ts';

const total = (template: string) => template.split(' ').reduce((sum, track) => sum + Number.parseFloat(track), 0);

test.each([
  [1240, 7],
  [1240, 4],
  [1900, 9],
  [860, 3],
])('%i pixels hold every column of %i groups', (width, groups) => {
  const { template } = columns(width, groups);
  const tracks = template.split(' ').length;
  expect(tracks).toBe(5 + groups);
  expect(total(template) + 10 * (tracks - 1)).toBeLessThanOrEqual(width);
});

test('a phone shows the overall rail alone', () => {
  const { template, part } = columns(350, 7);
  expect(template.split(' ')).toHaveLength(5);
  expect(part).toBe(0);
});

test('of many parts as many have a rail as fit', () => {
  const { parts, template } = columns(1240, 40);
  expect(parts).toBeLessThanOrEqual(9);
  expect(template.split(' ')).toHaveLength(5 + parts);
});
