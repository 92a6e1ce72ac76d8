import { expect, test } from 'vitest';
import { put, read, take, type Table } from './table-store.ts';

const none: Table = { entries: [], base: null, lit: null };

test('a configuration keeps its mark when another one is taken off', () => {
  const three = [11, 12, 13].reduce(put, none);
  const two = take(three, 11);
  expect(two.entries).toEqual([
    { id: 12, slot: 1 },
    { id: 13, slot: 2 },
  ]);
  expect(put(two, 14).entries[2]).toEqual({ id: 14, slot: 0 });
});

test('the table has room for eight, once each', () => {
  const eight = Array.from({ length: 12 }, (_, i) => i).reduce(put, none);
  expect(eight.entries).toHaveLength(8);
  expect(put(none, 5)).toEqual(put(put(none, 5), 5));
});

test('taking off the base leaves no base', () => {
  expect(take({ ...put(none, 5), base: 5, lit: 5 }, 5)).toEqual(none);
});

test('what was kept is believed only where it makes sense', () => {
  expect(read(null)).toEqual(none);
  expect(read('{"entries":[{"id":1,"slot":0},{"id":1,"slot":3},{"id":2,"slot":99}],"base":7}')).toEqual({
    entries: [{ id: 1, slot: 0 }],
    base: null,
    lit: null,
  });
  expect(read('{"entries":[{"id":1,"slot":4}],"base":1}').base).toBe(1);
});
