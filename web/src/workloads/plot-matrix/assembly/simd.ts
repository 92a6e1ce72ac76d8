// The same product with two numbers to an instruction. Each element is summed in the same order, so the answer is the same.
// docs/method.md says why. A change here is a new suite version.

export const SIDE: i32 = 128;
const ROW: usize = <usize>SIDE << 3;
const A: usize = 0x20000;
const B: usize = 0x40000;
const C: usize = 0x60000;

/** Fills both matrices with numbers between -1 and 1. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < 2 * SIDE * SIDE; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    store<f64>(A + (<usize>i << 3), <f64>(<i32>x) / 2147483648.0);
  }
}

// @ts-ignore: decorator
@inline
function addScaled(sum: v128, factor: v128, at: usize): v128 {
  return f64x2.add(sum, f64x2.mul(factor, v128.load(at)));
}

/** One product. The answer depends on every bit of every element. */
export function operate(): u32 {
  memory.fill(C, 0, ROW * SIDE);
  for (let i = 0; i < SIDE; i++) {
    const c = C + <usize>i * ROW;
    for (let k = 0; k < SIDE; k += 4) {
      const a = A + <usize>i * ROW + (<usize>k << 3);
      const a0 = v128.load64_splat(a);
      const a1 = v128.load64_splat(a, 8);
      const a2 = v128.load64_splat(a, 16);
      const a3 = v128.load64_splat(a, 24);
      const b = B + <usize>k * ROW;
      for (let at: usize = 0; at < ROW; at += 16) {
        const sum = addScaled(addScaled(addScaled(addScaled(v128.load(c + at), a0, b + at), a1, b + at + 1024), a2, b + at + 2048), a3, b + at + 3072);
        v128.store(c + at, sum);
      }
    }
  }
  let h: u64 = 0xcbf29ce484222325;
  for (let i = 0; i < SIDE * SIDE; i++) h = rotl<u64>(h ^ load<u64>(C + (<usize>i << 3)), 23) * 0x9e3779b97f4a7c15;
  return <u32>(h ^ (h >>> 32));
}
