// A small path tracer: light from one lantern, bounced between spheres. Branches and roots that no processor can foresee.
// docs/method.md says why. A change here is a new suite version.

export const WIDTH: i32 = 48;
export const HEIGHT: i32 = 32;
export const PATHS: i32 = 4; // for each pixel
const BOUNCES: i32 = 4;
const SPHERES: i32 = 9;
const SPHERE: usize = 0x20000; // x, y, z, radius, colour, light
const PICTURE: usize = 0x21000;

let first: u32 = 1;
let x: u32 = 1;

// @ts-ignore: decorator
@inline
function next(): f64 {
  x ^= x << 13;
  x ^= x >>> 17;
  x ^= x << 5;
  return <f64>x / 4294967296.0;
}

function put(i: i32, px: f64, py: f64, pz: f64, radius: f64, colour: f64, light: f64): void {
  const at = SPHERE + <usize>(i * 48);
  store<f64>(at, px);
  store<f64>(at, py, 8);
  store<f64>(at, pz, 16);
  store<f64>(at, radius, 24);
  store<f64>(at, colour, 32);
  store<f64>(at, light, 40);
}

/** Seven stones on the ground (a very large sphere), and a lantern. */
export function prepare(seed: u32): void {
  first = seed;
  x = seed;
  put(0, 0.0, -1000.0, 0.0, 1000.0, 0.6, 0.0);
  put(1, 0.5, 2.6, 4.0, 0.7, 0.0, 9.0);
  for (let i = 2; i < SPHERES; i++) {
    const radius = 0.25 + 0.4 * next();
    put(i, 4.0 * next() - 2.0, radius, 2.5 + 4.0 * next(), radius, 0.35 + 0.6 * next(), 0.0);
  }
}

/** One picture. The answer depends on the brightness of each pixel. */
export function operate(): u32 {
  x = first;
  let h: u32 = 0x811c9dc5;
  for (let row = 0; row < HEIGHT; row++) {
    for (let column = 0; column < WIDTH; column++) {
      let bright: f64 = 0.0;
      for (let path = 0; path < PATHS; path++) {
        bright += follow((<f64>column + next() - 24.0) / 24.0, (16.0 - <f64>row - next()) / 24.0);
      }
      const shade = <u32>min<f64>(65535.0, bright * 4096.0);
      store<u16>(PICTURE + <usize>((row * WIDTH + column) << 1), <u16>shade);
      h = (h ^ shade) * 0x01000193;
    }
  }
  return h;
}

function follow(right: f64, up: f64): f64 {
  let ox: f64 = 0.0;
  let oy: f64 = 1.2;
  let oz: f64 = -2.0;
  let long = Math.sqrt(right * right + up * up + 1.0);
  let dx = right / long;
  let dy = up / long;
  let dz = 1.0 / long;
  let left: f64 = 1.0;
  for (let bounce = 0; bounce < BOUNCES; bounce++) {
    let nearest: f64 = 1e30;
    let hit: usize = 0;
    for (let i = 0; i < SPHERES; i++) {
      const at = SPHERE + <usize>(i * 48);
      const cx = load<f64>(at) - ox;
      const cy = load<f64>(at, 8) - oy;
      const cz = load<f64>(at, 16) - oz;
      const along = cx * dx + cy * dy + cz * dz;
      const radius = load<f64>(at, 24);
      const inside = along * along - (cx * cx + cy * cy + cz * cz) + radius * radius;
      if (inside <= 0.0) continue;
      const root = Math.sqrt(inside);
      const t = along - root > 1e-4 ? along - root : along + root;
      if (t > 1e-4 && t < nearest) {
        nearest = t;
        hit = at;
      }
    }
    // A little sky from above, so that no part is wholly dark.
    if (hit == 0) return left * (dy > 0.0 ? 0.3 * dy : 0.0);
    if (load<f64>(hit, 40) > 0.0) return left * load<f64>(hit, 40);
    left *= load<f64>(hit, 32);
    ox += dx * nearest;
    oy += dy * nearest;
    oz += dz * nearest;
    const radius = load<f64>(hit, 24);
    const nx = (ox - load<f64>(hit)) / radius;
    const ny = (oy - load<f64>(hit, 8)) / radius;
    const nz = (oz - load<f64>(hit, 16)) / radius;
    // A point in the ball around the surface's normal gives a direction as a dull surface does.
    let bx: f64 = 0.0;
    let by: f64 = 0.0;
    let bz: f64 = 0.0;
    do {
      bx = 2.0 * next() - 1.0;
      by = 2.0 * next() - 1.0;
      bz = 2.0 * next() - 1.0;
    } while (bx * bx + by * by + bz * bz > 1.0);
    dx = nx + bx;
    dy = ny + by;
    dz = nz + bz;
    long = Math.sqrt(dx * dx + dy * dy + dz * dz) + 1e-12;
    dx /= long;
    dy /= long;
    dz /= long;
  }
  return 0.0;
}
