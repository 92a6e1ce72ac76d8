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

test.each([280, 350, 559])('%i pixels have the overall rail below the words, and nothing sticks out', (width) => {
  const { template, part, parts, narrow, overall } = columns(width, 7);
  expect({ narrow, part, parts }).toEqual({ narrow: true, part: 0, parts: 0 });
  const fixed = [...template.matchAll(/([\d.]+)px/g)].map((m) => Number(m[1]));
  expect(fixed.reduce((sum, track) => sum + track, 0) + overall + 20).toBeLessThanOrEqual(width);
});

test('of many parts as many have a rail as fit', () => {
  const { parts, template } = columns(1240, 40);
  expect(parts).toBeLessThanOrEqual(9);
  expect(template.split(' ')).toHaveLength(5 + parts);
});
