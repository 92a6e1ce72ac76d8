import { expect, test } from 'vitest';
import { byName, expectedDigest, foldText, makeList, ROWS } from './list.ts';
import { SEED, KNOWN_DIGEST } from './index.ts';

test('the list is the same every time and other for another seed', () => {
  expect(makeList(5)).toEqual(makeList(5));
  expect(makeList(5)).not.toEqual(makeList(6));
  expect(makeList(5)).toHaveLength(ROWS);
});

test('sorting leaves its list as it was and does not follow the device’s language', () => {
  const list = makeList(5);
  const sorted = byName(list);
  expect(list[0]!.id).toBe(0);
  expect(sorted.map((s) => s.name)).toEqual(list.map((s) => s.name).sort());
});

test('the known answer is the one computed without a page', () => {
  expect(expectedDigest(SEED)).toBe(KNOWN_DIGEST);
  expect(foldText(1, 'ab')).not.toBe(foldText(1, 'ba'));
});
