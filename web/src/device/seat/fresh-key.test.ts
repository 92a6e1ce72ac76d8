import { expect, test } from 'vitest';
import { freshKey } from './fresh-key.ts';

test('a browser without randomUUID makes keys of the same form, each another one', () => {
  const old = { getRandomValues: crypto.getRandomValues.bind(crypto) };
  const keys = new Set(Array.from({ length: 50 }, () => freshKey(old)));
  expect(keys.size).toBe(50);
  for (const key of keys) expect(key).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
});
