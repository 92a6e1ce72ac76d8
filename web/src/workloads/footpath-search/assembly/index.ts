// Shortest ways in a sparse graph: Dijkstra's search with a binary heap over footpaths that mostly lead nearby.
// docs/method.md says why. A change here is a new suite version.

export const PLACES: i32 = 8192;
export const PATHS: i32 = 5; // from each place
const LENGTHS: usize = 0x20000; // of each path
const ENDS: usize = 0x50000; // place each path leads to
const DISTANCE: usize = 0x80000;
const HEAP: usize = 0x90000; // distance << 32 | place

const FAR: u32 = 0xffffffff;
let size: i32 = 0;
let start: i32 = 0;

/** Lays the paths: four to neighbours on an uneven grid, one to anywhere. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let place = 0; place < PLACES; place++) {
    for (let path = 0; path < PATHS; path++) {
      x ^= x << 13;
      x ^= x >>> 17;
      x ^= x << 5;
      const jump: i32 = path == 0 ? 1 : path == 1 ? -1 : path == 2 ? 90 + <i32>(x % 3) : path == 3 ? -90 - <i32>(x % 3) : <i32>((x >>> 8) % PLACES);
      const end = (place + jump + PLACES) % PLACES;
      const slot = <usize>(place * PATHS + path) << 2;
      store<u32>(ENDS + slot, end);
      store<u32>(LENGTHS + slot, path == 4 ? 400 + (x & 1023) : 10 + ((x >>> 4) & 63));
    }
  }
  start = <i32>(seed % PLACES);
}

function push(entry: u64): void {
  let i = size++;
  while (i > 0) {
    const up = (i - 1) >> 1;
    const above = load<u64>(HEAP + (<usize>up << 3));
    if (above <= entry) break;
    store<u64>(HEAP + (<usize>i << 3), above);
    i = up;
  }
  store<u64>(HEAP + (<usize>i << 3), entry);
}

function pop(): u64 {
  const top = load<u64>(HEAP);
  const last = load<u64>(HEAP + (<usize>--size << 3));
  let i = 0;
  for (;;) {
    let down = 2 * i + 1;
    if (down >= size) break;
    if (down + 1 < size && load<u64>(HEAP + (<usize>(down + 1) << 3)) < load<u64>(HEAP + (<usize>down << 3))) down++;
    const below = load<u64>(HEAP + (<usize>down << 3));
    if (below >= last) break;
    store<u64>(HEAP + (<usize>i << 3), below);
    i = down;
  }
  store<u64>(HEAP + (<usize>i << 3), last);
  return top;
}

/** The distances from one place to all others. The answer depends on each. */
export function operate(): u32 {
  for (let place = 0; place < PLACES; place++) store<u32>(DISTANCE + (<usize>place << 2), FAR);
  size = 0;
  store<u32>(DISTANCE + (<usize>start << 2), 0);
  push(<u64>start);
  while (size > 0) {
    const entry = pop();
    const place = <i32>(<u32>entry);
    const distance = <u32>(entry >>> 32);
    if (distance > load<u32>(DISTANCE + (<usize>place << 2))) continue; // a shorter way was found meanwhile
    for (let path = 0; path < PATHS; path++) {
      const slot = <usize>(place * PATHS + path) << 2;
      const end = load<u32>(ENDS + slot);
      const way = distance + load<u32>(LENGTHS + slot);
      if (way < load<u32>(DISTANCE + (<usize>end << 2))) {
        store<u32>(DISTANCE + (<usize>end << 2), way);
        push((<u64>way << 32) | <u64>end);
      }
    }
  }
  let h: u32 = 0x811c9dc5;
  for (let place = 0; place < PLACES; place++) h = (h ^ load<u32>(DISTANCE + (<usize>place << 2))) * 0x01000193;
  return h;
}
