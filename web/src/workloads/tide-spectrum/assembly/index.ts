// Fast Fourier transform of complex 64-bit numbers, radix two, in place: forth, and back again.
// docs/method.md says why. A change here is a new suite version.

export const POINTS: i32 = 4096;
const BITS: i32 = 12;
export const SOURCE: usize = 0x20000; // real and imaginary part in turn
export const WORK: usize = 0x40000;
const TURNS: usize = 0x60000; // cosine and sine of each part of a turn

/** A tide gauge's year: a few periods and some noise. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < POINTS; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const noise = <f64>(<i32>x) / 2147483648.0;
    store<f64>(SOURCE + (<usize>i << 4), <f64>((i * 17) % 511) / 255.5 - 1.0 + 0.25 * noise);
    store<f64>(SOURCE + (<usize>i << 4) + 8, <f64>((i * 5) % 97) / 97.0);
  }
  for (let i = 0; i < POINTS / 2; i++) {
    const angle = (-2.0 * Math.PI * <f64>i) / <f64>POINTS;
    store<f64>(TURNS + (<usize>i << 4), Math.cos(angle));
    store<f64>(TURNS + (<usize>i << 4) + 8, Math.sin(angle));
  }
}

/** @param back 1 forth, -1 back (without the division by the number of points) */
export function transform(back: f64): void {
  for (let i = 0; i < POINTS; i++) {
    let mirrored = 0;
    for (let bit = 0; bit < BITS; bit++) mirrored |= ((i >> bit) & 1) << (BITS - 1 - bit);
    if (mirrored > i) {
      const a = WORK + (<usize>i << 4);
      const b = WORK + (<usize>mirrored << 4);
      const re = load<f64>(a);
      const im = load<f64>(a, 8);
      store<f64>(a, load<f64>(b));
      store<f64>(a, load<f64>(b, 8), 8);
      store<f64>(b, re);
      store<f64>(b, im, 8);
    }
  }
  for (let half = 1; half < POINTS; half <<= 1) {
    const step = POINTS / (2 * half);
    for (let from = 0; from < POINTS; from += 2 * half) {
      for (let i = 0; i < half; i++) {
        const turn = TURNS + (<usize>(i * step) << 4);
        const cos = load<f64>(turn);
        const sin = load<f64>(turn, 8) * back;
        const a = WORK + (<usize>(from + i) << 4);
        const b = a + (<usize>half << 4);
        const re = load<f64>(b) * cos - load<f64>(b, 8) * sin;
        const im = load<f64>(b) * sin + load<f64>(b, 8) * cos;
        store<f64>(b, load<f64>(a) - re);
        store<f64>(b, load<f64>(a, 8) - im, 8);
        store<f64>(a, load<f64>(a) + re);
        store<f64>(a, load<f64>(a, 8) + im, 8);
      }
    }
  }
}

export function reload(): void {
  memory.copy(WORK, SOURCE, <usize>POINTS << 4);
}

/** One transform forth and one back. The answer depends on every bit of what came back. */
export function operate(): u32 {
  reload();
  transform(1.0);
  transform(-1.0);
  let h: u64 = 0xcbf29ce484222325;
  for (let i = 0; i < 2 * POINTS; i++) h = rotl<u64>(h ^ load<u64>(WORK + (<usize>i << 3)), 23) * 0x9e3779b97f4a7c15;
  return <u32>(h ^ (h >>> 32));
}
