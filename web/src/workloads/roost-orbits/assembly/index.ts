// Bodies that draw each other: every pair in every step, 64-bit floating point with a root and a division each.
// docs/method.md says why. A change here is a new suite version.

export const BODIES: i32 = 96;
export const STEPS: i32 = 8;
const DT: f64 = 0.001;
const SOFT: f64 = 0.01; // keeps close pairs finite
const START: usize = 0x20000; // x, y, z, mass, vx, vy, vz, 0 of each body
const NOW: usize = 0x24000;

export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < BODIES * 8; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const part = i & 7;
    const value = <f64>(<i32>x) / 2147483648.0;
    store<f64>(START + (<usize>i << 3), part == 3 ? 1.5 + value : part == 7 ? 0.0 : value);
  }
}

/** Eight steps from the start. The answer depends on every bit of where the bodies are then. */
export function operate(): u32 {
  memory.copy(NOW, START, <usize>BODIES << 6);
  for (let step = 0; step < STEPS; step++) {
    for (let i = 0; i < BODIES; i++) {
      const a = NOW + (<usize>i << 6);
      const x = load<f64>(a);
      const y = load<f64>(a, 8);
      const z = load<f64>(a, 16);
      let ax: f64 = 0.0;
      let ay: f64 = 0.0;
      let az: f64 = 0.0;
      for (let j = 0; j < BODIES; j++) {
        const b = NOW + (<usize>j << 6);
        const dx = load<f64>(b) - x;
        const dy = load<f64>(b, 8) - y;
        const dz = load<f64>(b, 16) - z;
        const square = dx * dx + dy * dy + dz * dz + SOFT;
        const pull = load<f64>(b, 24) / (square * Math.sqrt(square));
        ax += dx * pull;
        ay += dy * pull;
        az += dz * pull;
      }
      store<f64>(a, load<f64>(a, 32) + ax * DT, 32);
      store<f64>(a, load<f64>(a, 40) + ay * DT, 40);
      store<f64>(a, load<f64>(a, 48) + az * DT, 48);
    }
    for (let i = 0; i < BODIES; i++) {
      const a = NOW + (<usize>i << 6);
      store<f64>(a, load<f64>(a) + load<f64>(a, 32) * DT);
      store<f64>(a, load<f64>(a, 8) + load<f64>(a, 40) * DT, 8);
      store<f64>(a, load<f64>(a, 16) + load<f64>(a, 48) * DT, 16);
    }
  }
  let h: u64 = 0xcbf29ce484222325;
  for (let i = 0; i < BODIES * 8; i++) h = rotl<u64>(h ^ load<u64>(NOW + (<usize>i << 3)), 23) * 0x9e3779b97f4a7c15;
  return <u32>(h ^ (h >>> 32));
}
