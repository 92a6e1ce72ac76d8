import { expect, test } from 'vitest';
import { TOLERANCE } from './known.ts';
import { farthest } from './picture.ts';
import { CELLS, chanceIn, reedFields, type Chance } from './reeds.ts';

const fract = (x: number) => x - Math.floor(x);
/** As exact as can be; a processor's sine is off by this much. */
const bed = (off: number): Chance => (column, row) => {
  const turn = column * 12.9898 + row * 78.233;
  return fract((Math.sin(turn) + off * Math.sin(turn * 3)) * 437.5453);
};
const EXACT = reedFields(bed(0));

test('what a processor takes for each cell is read to sixteen digits', () => {
  const pixels = new Uint8Array(CELLS.columns * CELLS.rows * 4);
  const at = (3 * CELLS.columns + 5 - CELLS.left) * 4;
  const chance = 0.123456;
  pixels.set([Math.floor(chance * 255), Math.round(fract(chance * 255) * 255)], at);
  expect(Math.abs(chanceIn(pixels)(5, 3) - chance)).toBeLessThan(1e-5);
  expect(chanceIn(pixels)(4, 3)).toBe(0);
});

test('no ray leaves the cells that are asked for', () => {
  const seen = { left: 0, right: 0, near: 0, far: 0 };
  reedFields((column, row) => {
    seen.left = Math.min(seen.left, column);
    seen.right = Math.max(seen.right, column);
    seen.near = Math.min(seen.near, row);
    seen.far = Math.max(seen.far, row);
    return 0;
  });
  expect(seen.left).toBeGreaterThanOrEqual(CELLS.left);
  expect(seen.right).toBeLessThan(CELLS.columns + CELLS.left);
  expect(seen.near).toBe(0);
  expect(seen.far).toBeLessThan(CELLS.rows);
});

test('the picture is as large as it needs to be, and its sky is the one that was drawn by a browser', () => {
  expect(farthest(reedFields(bed(0), 640, 360), EXACT)).toBeLessThan(1);
  const sky = EXACT.slice(-24);
  expect(farthest(sky, sky.map((_, i) => [149.8, 179.5, 200.8][i % 3]!))).toBeLessThan(0.5);
});

test('a sine that is a little off makes another bed, which one fixed picture would have called wrong', () => {
  expect(farthest(reedFields(bed(5e-4)), EXACT)).toBeGreaterThan(TOLERANCE);
  expect(farthest(reedFields(bed(1e-6)), EXACT)).toBeLessThan(TOLERANCE);
});

test('a bed without reeds, or of reeds of one size, is no picture of this one', () => {
  expect(farthest(reedFields(() => 0.5), EXACT)).toBeGreaterThan(3 * TOLERANCE);
  expect(farthest(EXACT.map(() => 128), EXACT)).toBeGreaterThan(3 * TOLERANCE);
});
