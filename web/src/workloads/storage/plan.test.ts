import { expect, test } from 'vitest';
import { BLOCK, CHUNK, FILE_BYTES, fillBlock, MIB, needs, room, stamp, STORAGE_TESTS, SWEEP } from './plan.ts';

test('more than a tenth of the free space is asked for, and what is not there is not tried', () => {
  expect(room(64 * MIB, 640 * MIB)).toBe('enough');
  expect(room(64 * MIB, 640 * MIB - 1)).toBe('ask');
  expect(room(64 * MIB, 64 * MIB)).toBe('ask');
  expect(room(64 * MIB, 64 * MIB - 1)).toBe('too-little');
  expect(room(needs('transactions'), 5 * MIB)).toBe('ask');
  expect(room(needs('read'), 5 * MIB)).toBe('too-little');
});

test('no test needs more than it asks for', () => {
  for (const t of STORAGE_TESTS) expect(needs(t)).toBeLessThanOrEqual(FILE_BYTES);
  expect(Math.max(...SWEEP)).toBeLessThanOrEqual(FILE_BYTES);
  expect(SWEEP.every((bytes) => FILE_BYTES % bytes === 0)).toBe(true);
});

test('a block tells its place: no two alike, the same again each time', () => {
  const [a, b, again] = [new Uint8Array(4096), new Uint8Array(4096), new Uint8Array(4096)];
  fillBlock(a, 7, 1);
  fillBlock(b, 8, 1);
  fillBlock(again, 7, 1);
  expect(a).toEqual(again);
  expect(a).not.toEqual(b);
  expect(new Set(a).size).toBeGreaterThan(200);
});

test('no two pages of the file are alike, though its content is made once', () => {
  const chunk = new Uint8Array(CHUNK);
  const stamps = new Set<number>();
  for (let at = 0; at < 2 * CHUNK; at += CHUNK) {
    stamp(chunk, at);
    for (let page = 0; page < CHUNK; page += BLOCK) stamps.add(new DataView(chunk.buffer).getUint32(page));
  }
  expect(stamps.size).toBe((2 * CHUNK) / BLOCK);
});
