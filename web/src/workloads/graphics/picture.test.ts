import { expect, test } from 'vitest';
import { view } from './gl.ts';
import { KNOWN, TOLERANCE } from './known.ts';
import { COLUMNS, farthest, fields, ROWS } from './picture.ts';

const picture = (width: number, height: number, of: (column: number, row: number) => number[]) =>
  Uint8Array.from({ length: height * width }, (_, i) => i).reduce((pixels, _, i) => (pixels.set([...of(i % width, Math.floor(i / width)), 255], i * 4), pixels), new Uint8Array(width * height * 4));

test('a field has the mean of its pixels, whatever the size of the picture', () => {
  const half = (width: number) => (column: number) => (column < width / 2 ? [10, 20, 30] : [200, 100, 0]);
  const small = fields(picture(16, 8, half(16)), 16, 8);
  expect(small).toHaveLength(COLUMNS * ROWS * 3);
  expect(small.slice(0, 3)).toEqual([10, 20, 30]);
  expect(small.slice(-3)).toEqual([200, 100, 0]);
  expect(fields(picture(32, 12, half(32)), 32, 12)).toEqual(small);
});

test('one field that is missing is farther off than any rounding', () => {
  for (const [name, known] of Object.entries(KNOWN)) {
    expect(known, name).toHaveLength(COLUMNS * ROWS * 3);
    expect(farthest(known, known)).toBe(0);
    expect(farthest(known.map((v) => Math.min(255, v + 2)), known)).toBeLessThan(TOLERANCE);
    expect(farthest(known.map((v, i) => (i === 40 ? 0 : v)), known), name).toBeGreaterThan(TOLERANCE);
  }
  expect(() => farthest([1], [1, 2])).toThrow(RangeError);
});

test('a point in the middle of the view is in the middle of the picture, one to the right of it to the right', () => {
  const m = view(16 / 9, 0.3, 6, 12);
  const seen = (x: number, y: number, z: number) => {
    const clip = [0, 1, 2, 3].map((r) => m[r]! * x + m[4 + r]! * y + m[8 + r]! * z + m[12 + r]!);
    return clip.slice(0, 3).map((v) => v / clip[3]!);
  };
  expect(seen(0, 0, 0)[0]).toBeCloseTo(0, 5);
  expect(seen(0, 0, 0)[1]).toBeCloseTo(0, 5);
  expect(seen(Math.cos(0.3), 0, -Math.sin(0.3))[0]).toBeGreaterThan(0);
  expect(seen(0, 1, 0)[1]).toBeGreaterThan(0);
  // Nearer things have the smaller depth.
  expect(seen(Math.sin(0.3), 0.5, Math.cos(0.3))[2]).toBeLessThan(seen(0, 0, 0)[2]!);
});
