// Reading, writing, copying and scaled adding of blocks of any size, and walking through one at random.
// docs/method.md says why. A change here is a new suite version.

const BASE: usize = 0x10000;
const PAGE: usize = 65536;
const LINE: i32 = 64; // bytes from one step of a walk to the next

/** Whether so many bytes can be had. */
export function reach(bytes: i32): bool {
  const wanted = BASE + <usize>bytes;
  const there = <usize>memory.size() * PAGE;
  if (there >= wanted) return true;
  return memory.grow(<i32>((wanted - there + PAGE - 1) / PAGE)) >= 0;
}

/** Every byte is touched, so that each page is there before anything is timed. No power of two is a multiple of 1021, so no part is like another. */
export function fill(bytes: i32): void {
  for (let at: usize = 0; at < <usize>bytes; at += 8) store<f64>(BASE + at, <f64>((at >>> 3) % 1021));
}

/** Sum of all numbers, read one after the other. */
export function read(bytes: i32): f64 {
  const end = BASE + <usize>bytes;
  let a: f64 = 0.0;
  let b: f64 = 0.0;
  let c: f64 = 0.0;
  let d: f64 = 0.0;
  for (let at = BASE; at < end; at += 64) {
    a += load<f64>(at) + load<f64>(at, 32);
    b += load<f64>(at, 8) + load<f64>(at, 40);
    c += load<f64>(at, 16) + load<f64>(at, 48);
    d += load<f64>(at, 24) + load<f64>(at, 56);
  }
  return a + b + c + d;
}

export function write(bytes: i32, value: f64): void {
  const end = BASE + <usize>bytes;
  for (let at = BASE; at < end; at += 64) {
    store<f64>(at, value);
    store<f64>(at, value, 8);
    store<f64>(at, value, 16);
    store<f64>(at, value, 24);
    store<f64>(at, value, 32);
    store<f64>(at, value, 40);
    store<f64>(at, value, 48);
    store<f64>(at, value, 56);
  }
}

/** Copies the first half to the second. */
export function copy(bytes: i32): void {
  const half = <usize>bytes >> 1;
  const end = BASE + half;
  for (let at = BASE; at < end; at += 64) {
    store<f64>(at + half, load<f64>(at));
    store<f64>(at + half, load<f64>(at, 8), 8);
    store<f64>(at + half, load<f64>(at, 16), 16);
    store<f64>(at + half, load<f64>(at, 24), 24);
    store<f64>(at + half, load<f64>(at, 32), 32);
    store<f64>(at + half, load<f64>(at, 40), 40);
    store<f64>(at + half, load<f64>(at, 48), 48);
    store<f64>(at + half, load<f64>(at, 56), 56);
  }
}

/** The last quarter becomes the first plus the second times a number. The third is left alone, so that sizes stay powers of two. */
export function scaledAdd(bytes: i32, factor: f64): void {
  const part = <usize>bytes >> 2;
  const end = BASE + part;
  const to = 3 * part;
  for (let at = BASE; at < end; at += 32) {
    store<f64>(at + to, load<f64>(at) + factor * load<f64>(at + part));
    store<f64>(at + to, load<f64>(at, 8) + factor * load<f64>(at + part, 8), 8);
    store<f64>(at + to, load<f64>(at, 16) + factor * load<f64>(at + part, 16), 16);
    store<f64>(at + to, load<f64>(at, 24) + factor * load<f64>(at + part, 24), 24);
  }
}

/** One number of those in the block, for a look at what was done. */
export function peek(index: i32): f64 {
  return load<f64>(BASE + (<usize>index << 3));
}

/** Links the lines of a block into one ring in random order: each line holds the place of the next. */
export function weave(bytes: i32, seed: u32): void {
  const lines = bytes / LINE;
  let x = seed;
  for (let i = 0; i < lines; i++) store<i32>(BASE + <usize>(i * LINE), i * LINE);
  // Sattolo's way to shuffle: always a single ring, never several short ones.
  for (let i = lines - 1; i > 0; i--) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const j = <i32>(x % <u32>i);
    const here = BASE + <usize>(i * LINE);
    const there = BASE + <usize>(j * LINE);
    const held = load<i32>(here);
    store<i32>(here, load<i32>(there));
    store<i32>(there, held);
  }
}

/** Goes so many steps; each needs the one before. Answers where it ended. */
export function walk(steps: i32, from: i32): i32 {
  let at = from;
  for (let i = 0; i < steps; i += 8) {
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
    at = load<i32>(BASE + <usize>at);
  }
  return at;
}
