/** What a picture looks like, coarsely: mean of each colour in each field of a grid. Rows as read back, lowest first. */
export const COLUMNS = 8;
export const ROWS = 4;

export function fields(pixels: Uint8Array | Uint8ClampedArray, width: number, height: number): number[] {
  const sums = new Float64Array(COLUMNS * ROWS * 3);
  const counts = new Float64Array(COLUMNS * ROWS);
  for (let row = 0; row < height; row++) {
    const fieldRow = Math.floor((row * ROWS) / height);
    for (let column = 0; column < width; column++) {
      const field = fieldRow * COLUMNS + Math.floor((column * COLUMNS) / width);
      const at = (row * width + column) * 4;
      for (let part = 0; part < 3; part++) sums[field * 3 + part]! += pixels[at + part]!;
      counts[field]!++;
    }
  }
  return Array.from(sums, (sum, i) => Math.round((sum / counts[Math.floor(i / 3)]!) * 10) / 10);
}

/** The largest difference of two pictures in any field and colour, of 255. */
export function farthest(a: readonly number[], b: readonly number[]): number {
  if (a.length !== b.length) throw new RangeError(`pictures of ${a.length} and ${b.length} fields cannot be held against each other`);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]!)), 0);
}
