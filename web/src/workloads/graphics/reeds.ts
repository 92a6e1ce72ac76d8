import { program, target, WHOLE, type Gl } from './gl.ts';
import { fields } from './picture.ts';

/**
 * The picture of the reed bed cannot be known beforehand: where a reed stands is taken from digits of a sine that graphics
 * processors compute each in its own way, and all of them may. So the processor is asked what it takes for each cell, and
 * the bed that this makes is drawn here once more, by plain arithmetic.
 */

/** Cells that the picture of the first moment reaches, from the column that is farthest left. */
export const CELLS = { columns: 32, rows: 16, left: -16 };

/** From this many pixels on, a larger picture has the same fields to half of one of 255. */
const WIDTH = 320;
const HEIGHT = 180;

/** What the processor takes for the reed of a cell, 0 to 1. */
export type Chance = (column: number, row: number) => number;

/** @param pixels one for each cell, lowest row first: red the first digits, green the next ones */
export function chanceIn(pixels: Uint8Array): Chance {
  return (column, row) => {
    const at = (row * CELLS.columns + column - CELLS.left) * 4;
    return (pixels[at]! + pixels[at + 1]! / 255) / 255;
  };
}

/** Asks the graphics processor. Leaves another target bound than there was. */
export function chances(gl: Gl): Chance {
  const shader = program(gl, WHOLE, `
    in vec2 at; out vec4 colour;
    void main() {
      vec2 cell = floor(at * vec2(${CELLS.columns}.0, ${CELLS.rows}.0)) + vec2(${CELLS.left}.0, 0.0);
      float chance = fract(sin(dot(cell, vec2(12.9898, 78.233))) * 437.5453);
      colour = vec4(floor(chance * 255.0) / 255.0, fract(chance * 255.0), 0.0, 1.0);
    }`);
  target(gl, { width: CELLS.columns, height: CELLS.rows });
  gl.viewport(0, 0, CELLS.columns, CELLS.rows);
  gl.disable(gl.DEPTH_TEST);
  gl.disable(gl.BLEND);
  gl.useProgram(shader);
  gl.drawArrays(gl.TRIANGLES, 0, 3);
  const pixels = new Uint8Array(CELLS.columns * CELLS.rows * 4);
  gl.readPixels(0, 0, CELLS.columns, CELLS.rows, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
  return chanceIn(pixels);
}

const fract = (x: number) => x - Math.floor(x);
const mix = (a: number, b: number, t: number) => a + (b - a) * t;
const clamp = (x: number, least: number, most: number) => Math.min(most, Math.max(least, x));
const smooth = (from: number, to: number, x: number) => {
  const t = clamp((x - from) / (to - from), 0, 1);
  return t * t * (3 - 2 * t);
};

/** How far a point is from the nearest reed or the ground. */
function nearest(x: number, y: number, z: number, chance: Chance): number {
  const [column, row] = [Math.floor(x), Math.floor(z)];
  const own = chance(column, row);
  const sway = 0.12 * y * y * Math.sin(column * 0.7 + row * 0.4);
  const leanX = fract(x) - 0.5 - sway - 0.25 * (own - 0.5);
  const leanZ = fract(z) - 0.5 - 0.25 * (fract(own * 17) - 0.5);
  const high = 0.9 + 0.7 * own;
  const stem = Math.hypot(leanX, leanZ) - mix(0.07, 0.02, clamp(y / high, 0, 1));
  return Math.min(Math.max(stem, y - high), y);
}

const GROUND = [0.2, 0.24, 0.2];
const REED: readonly (readonly [number, number])[] = [[0.25, 0.75], [0.3, 0.68], [0.12, 0.4]];
const SKY: readonly (readonly [number, number])[] = [[0.85, 0.55], [0.87, 0.68], [0.84, 0.78]];

/** The reed bed of graphics/scenes.ts at its first moment, field by field. */
export function reedFields(chance: Chance, width = WIDTH, height = HEIGHT): number[] {
  const pixels = new Uint8Array(width * height * 4);
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      const up = (row + 0.5) / height;
      const [x, y, z] = [((2 * (column + 0.5)) / width - 1) * (width / height), (2 * up - 1) * 0.8 - 0.35, 1.3];
      const long = Math.hypot(x, y, z);
      let t = 0;
      for (let i = 0; i < 48; i++) {
        const d = nearest((x / long) * t, 1.5 + (y / long) * t, (z / long) * t, chance);
        if (d < 0.005 || t > 14) break;
        t += clamp(d * 0.7, 0.01, 0.3);
      }
      const end = 1.5 + (y / long) * t;
      const far = smooth(3, 14, t);
      for (let part = 0; part < 3; part++) {
        const base = end < 0.02 ? GROUND[part]! : mix(...REED[part]!, clamp(end, 0, 1));
        pixels[(row * width + column) * 4 + part] = Math.round(255 * mix(base, mix(...SKY[part]!, up), far));
      }
    }
  }
  return fields(pixels, width, height);
}
