// An image filter on bytes: smoothing across and down with five weights, then sharpening what was there before.
// docs/method.md says why. A change here is a new suite version.

export const SIDE: i32 = 256;
export const PLANES: i32 = 3;
const BYTES: i32 = SIDE * SIDE;
const EDGE: i32 = 2; // stays as it is
const SOURCE: usize = 0x20000;
const ACROSS: usize = 0x60000;
const RESULT: usize = 0xa0000;

/** A plate of leaves: bands, spots and grain, different in each colour. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < PLANES * BYTES; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const row = (i >> 8) & 255;
    const column = i & 255;
    const band = ((row * 3 + column * (1 + (i >> 16))) >> 4) & 7;
    store<u8>(SOURCE + i, <u8>((band * 24 + ((row ^ column) & 31) + (x & 15)) & 255));
  }
}

/** Filters all three planes. The answer depends on every byte. */
export function operate(): u32 {
  memory.copy(ACROSS, SOURCE, PLANES * BYTES);
  memory.copy(RESULT, SOURCE, PLANES * BYTES);
  for (let plane = 0; plane < PLANES; plane++) {
    const base = <usize>(plane * BYTES);
    for (let row = 0; row < SIDE; row++) {
      for (let column = EDGE; column < SIDE - EDGE; column++) {
        const at = SOURCE + base + <usize>(row * SIDE + column);
        const sum = <i32>load<u8>(at - 2) + <i32>load<u8>(at + 2) + 4 * (<i32>load<u8>(at - 1) + <i32>load<u8>(at + 1)) + 6 * <i32>load<u8>(at);
        store<u8>(ACROSS + base + <usize>(row * SIDE + column), <u8>((sum + 8) >> 4));
      }
    }
    for (let row = EDGE; row < SIDE - EDGE; row++) {
      for (let column = 0; column < SIDE; column++) {
        const offset = base + <usize>(row * SIDE + column);
        const at = ACROSS + offset;
        const sum = <i32>load<u8>(at - 512) + <i32>load<u8>(at + 512) + 4 * (<i32>load<u8>(at - 256) + <i32>load<u8>(at + 256)) + 6 * <i32>load<u8>(at);
        const sharp = 2 * <i32>load<u8>(SOURCE + offset) - ((sum + 8) >> 4);
        store<u8>(RESULT + offset, <u8>max<i32>(0, min<i32>(255, sharp)));
      }
    }
  }
  let h: u32 = 0x811c9dc5;
  for (let i = 0; i < PLANES * BYTES; i += 4) h = (h ^ load<u32>(RESULT + i)) * 0x01000193;
  return h;
}
