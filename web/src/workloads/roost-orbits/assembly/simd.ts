// The same bodies, two of them to an instruction. Pulls are summed in another order, so the answer is another.
// docs/method.md says why. A change here is a new suite version.

export const BODIES: i32 = 96;
export const STEPS: i32 = 8;
const DT: f64 = 0.001;
const SOFT: f64 = 0.01;
const ROW: usize = <usize>BODIES << 3;
const START: usize = 0x20000; // all x, all y, all z, all masses, all vx, vy, vz
const NOW: usize = 0x24000;

export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < BODIES * 8; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const part = i & 7;
    const value = <f64>(<i32>x) / 2147483648.0;
    store<f64>(START + <usize>part * ROW + (<usize>(i >> 3) << 3), part == 3 ? 1.5 + value : part == 7 ? 0.0 : value);
  }
}

// @ts-ignore: decorator
@inline
function sum(v: v128): f64 {
  return f64x2.extract_lane(v, 0) + f64x2.extract_lane(v, 1);
}

/** Eight steps from the start. The answer depends on every bit of where the bodies are then. */
export function operate(): u32 {
  memory.copy(NOW, START, ROW << 3);
  for (let step = 0; step < STEPS; step++) {
    for (let i: usize = 0; i < ROW; i += 8) {
      const x = v128.load64_splat(NOW + i);
      const y = v128.load64_splat(NOW + ROW + i);
      const z = v128.load64_splat(NOW + 2 * ROW + i);
      let ax = f64x2.splat(0.0);
      let ay = f64x2.splat(0.0);
      let az = f64x2.splat(0.0);
      for (let j: usize = 0; j < ROW; j += 16) {
        const dx = f64x2.sub(v128.load(NOW + j), x);
        const dy = f64x2.sub(v128.load(NOW + ROW + j), y);
        const dz = f64x2.sub(v128.load(NOW + 2 * ROW + j), z);
        const square = f64x2.add(f64x2.add(f64x2.add(f64x2.mul(dx, dx), f64x2.mul(dy, dy)), f64x2.mul(dz, dz)), f64x2.splat(SOFT));
        const pull = f64x2.div(v128.load(NOW + 3 * ROW + j), f64x2.mul(square, f64x2.sqrt(square)));
        ax = f64x2.add(ax, f64x2.mul(dx, pull));
        ay = f64x2.add(ay, f64x2.mul(dy, pull));
        az = f64x2.add(az, f64x2.mul(dz, pull));
      }
      store<f64>(NOW + 4 * ROW + i, load<f64>(NOW + 4 * ROW + i) + sum(ax) * DT);
      store<f64>(NOW + 5 * ROW + i, load<f64>(NOW + 5 * ROW + i) + sum(ay) * DT);
      store<f64>(NOW + 6 * ROW + i, load<f64>(NOW + 6 * ROW + i) + sum(az) * DT);
    }
    for (let i: usize = 0; i < 3 * ROW; i += 16) {
      v128.store(NOW + i, f64x2.add(v128.load(NOW + i), f64x2.mul(v128.load(NOW + 4 * ROW + i), f64x2.splat(DT))));
    }
  }
  let h: u64 = 0xcbf29ce484222325;
  for (let i = 0; i < BODIES * 8; i++) h = rotl<u64>(h ^ load<u64>(NOW + (<usize>i << 3)), 23) * 0x9e3779b97f4a7c15;
  return <u32>(h ^ (h >>> 32));
}
