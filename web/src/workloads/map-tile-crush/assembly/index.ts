// Dictionary compression of map tiles: an LZ77 kind of our own, byte-oriented, with a 64 KiB window.
// docs/method.md says why. A change here is a new suite version.

const TILES: i32 = 32;
const SIDE: i32 = 160;
const TILE_BYTES: i32 = SIDE * SIDE;
export const RAW_BYTES: i32 = TILES * TILE_BYTES;

const RAW: usize = 0x10000;
const PACKED: usize = 0x110000;
const UNPACKED: usize = 0x210000;
const HASH_BITS: i32 = 14;
const HASHES: usize = 0x310000; // positions + 1 of the last place with this hash
const LEAST_MATCH: i32 = 4;
const MOST_MATCH: i32 = 259;
const WINDOW: i32 = 65535;

/** Draws the tiles: bands of land cover with winding borders, a dotted path and some grain. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let tile = 0; tile < TILES; tile++) {
    let border: i32 = 20 + (tile * 37) % 90;
    for (let row = 0; row < SIDE; row++) {
      x ^= x << 13;
      x ^= x >>> 17;
      x ^= x << 5;
      border = max<i32>(4, min<i32>(SIDE - 24, border + <i32>((x >>> 9) % 5) - 2));
      for (let column = 0; column < SIDE; column++) {
        let cover: i32 = column < border ? 3 : column < border + 18 ? 7 : 11 + ((row >> 4) + tile) % 3;
        if ((row + column * 3) % 41 == 0) cover += 64;
        if (((x >>> (column & 15)) & 511) == 5) cover += 128;
        store<u8>(RAW + <usize>(tile * TILE_BYTES + row * SIDE + column), <u8>cover);
      }
    }
  }
}

// @ts-ignore: decorator
@inline
function hashAt(at: usize): usize {
  return <usize>((load<u32>(at) * 0x9e3779b1) >>> (32 - HASH_BITS));
}

/** Compresses all tiles as one stream; answers the packed length. */
export function pack(): i32 {
  memory.fill(HASHES, 0, (<usize>1 << HASH_BITS) * 4);
  let from: i32 = 0;
  let literal: i32 = 0;
  let to: usize = PACKED;
  const last = RAW_BYTES - LEAST_MATCH;
  while (from <= last) {
    const slot = HASHES + (hashAt(RAW + from) << 2);
    const before: i32 = load<i32>(slot) - 1;
    store<i32>(slot, from + 1);
    let length = 0;
    if (before >= 0 && from - before <= WINDOW && load<u32>(RAW + before) == load<u32>(RAW + from)) {
      length = LEAST_MATCH;
      const most = min<i32>(MOST_MATCH, RAW_BYTES - from);
      while (length < most && load<u8>(RAW + before + length) == load<u8>(RAW + from + length)) length++;
    }
    if (length == 0) {
      from++;
      continue;
    }
    to = literals(to, literal, from);
    store<u8>(to, <u8>(length - LEAST_MATCH));
    store<u16>(to + 1, <u16>(from - before));
    to += 3;
    const end = from + length;
    from++;
    while (from < end && from <= last) {
      store<i32>(HASHES + (hashAt(RAW + from) << 2), from + 1);
      from++;
    }
    from = end;
    literal = end;
  }
  to = literals(to, literal, RAW_BYTES);
  return <i32>(to - PACKED);
}

/** A count of literals (0 to 255, more follow in another block whose match is empty), then the literals. */
function literals(to: usize, start: i32, end: i32): usize {
  let from = start;
  while (end - from > 254) {
    store<u8>(to, 255);
    memory.copy(to + 1, RAW + from, 254);
    to += 255;
    from += 254;
  }
  store<u8>(to, <u8>(end - from));
  memory.copy(to + 1, RAW + from, <usize>(end - from));
  return to + 1 + <usize>(end - from);
}

/** Unpacks; answers the number of bytes. */
export function unpack(packedLength: i32): i32 {
  let from: usize = PACKED;
  const end = PACKED + <usize>packedLength;
  let to: usize = UNPACKED;
  while (from < end) {
    let count: i32 = load<u8>(from++);
    while (count == 255) {
      memory.copy(to, from, 254);
      to += 254;
      from += 254;
      count = load<u8>(from++);
    }
    memory.copy(to, from, count);
    to += count;
    from += count;
    if (from >= end) break;
    const length: i32 = <i32>load<u8>(from) + LEAST_MATCH;
    const distance: usize = load<u16>(from + 1);
    from += 3;
    // Byte by byte: a match may reach into what it is just writing.
    for (let i = 0; i < length; i++) store<u8>(to + i, load<u8>(to + i - distance));
    to += length;
  }
  return <i32>(to - UNPACKED);
}

/** Whether what was unpacked is what was packed. */
export function same(): bool {
  return memory.compare(RAW, UNPACKED, RAW_BYTES) == 0;
}

/** A digest of the packed bytes, to be compared with the known answer. */
export function digest(packedLength: i32): u32 {
  let h: u32 = 0x811c9dc5;
  for (let i = 0; i < packedLength; i++) {
    h = (h ^ load<u8>(PACKED + i)) * 0x01000193;
  }
  return h;
}
