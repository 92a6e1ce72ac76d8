import { expect, test } from 'vitest';
import { brightness, draw, farthest, GRID_COLUMNS, GRID_ROWS } from './sketch.ts';

/** Writes down what is drawn instead of drawing it. */
function recorder() {
  const calls: string[] = [];
  const context = new Proxy({} as OffscreenCanvasRenderingContext2D, {
    get: (_, name) => (...values: unknown[]) => calls.push(`${String(name)}(${values.filter((v) => typeof v === 'number').join()})`),
    set: (_, name, value) => calls.push(`${String(name)}=${String(value)}`) > 0,
  });
  return { calls, context };
}

test('a drawing is the same every time, and labels only add to it', () => {
  const [a, b, c] = [recorder(), recorder(), recorder()];
  const symbol = {} as OffscreenCanvas;
  draw(a.context, symbol, 7, false);
  draw(b.context, symbol, 7, false);
  draw(c.context, symbol, 7, true);
  expect(b.calls).toEqual(a.calls);
  expect(c.calls.slice(0, a.calls.length)).toEqual(a.calls);
  expect(c.calls.length).toBeGreaterThan(a.calls.length);
});

test('brightness is the mean of each field', () => {
  const pixels = new Uint8ClampedArray(80 * 60 * 4).fill(255);
  for (let i = 0; i < 80 * 10; i++) pixels.set([0, 0, 0], i * 4);
  const grid = brightness(pixels, 80, 60);
  expect(grid).toHaveLength(GRID_COLUMNS * GRID_ROWS);
  grid.slice(0, 8).forEach((v) => expect(v).toBeCloseTo(0));
  grid.slice(8).forEach((v) => expect(v).toBeCloseTo(255));
});

test('the farthest field decides', () => {
  expect(farthest([1, 2, 3], [1, 5, 2])).toBe(3);
  expect(farthest([1], [1, 2])).toBe(Infinity);
});
