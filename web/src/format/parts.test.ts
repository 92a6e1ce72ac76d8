import { expect, test } from 'vitest';
import type { Schemas } from '../api/client.ts';
import { partWords, toggled } from './parts.ts';

const rows = [
  { metric: { suiteVersionId: 4, suite: 'Saltern', version: '2', testId: 9, test: 'Pack' } as Schemas['MetricRow'] },
];

test('a part that is left out has a name', () => {
  expect(partWords('group:STORAGE', rows)).toBe('Storage');
  expect(partWords('suite:4', rows)).toBe('Saltern 2');
  expect(partWords('test:9', rows)).toBe('Pack');
  expect(partWords('test:77', rows)).toBe('a test');
});

test('a part is left out, and taken in again', () => {
  expect(toggled(undefined, 'test:9')).toEqual(['test:9']);
  expect(toggled(['test:9'], 'group:BODY')).toEqual(['test:9', 'group:BODY']);
  expect(toggled(['test:9'], 'test:9')).toBeUndefined();
});
