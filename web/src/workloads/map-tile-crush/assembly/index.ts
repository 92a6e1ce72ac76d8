// Dictionary compression of map tiles, each on its own as maps are kept: an LZ77 kind of ours, byte-oriented. All that
// is touched fits the second cache level of most processors; memory has tests of its own, and its contention with
// other programs made this one wander by a tenth and more.
// docs/method.md says why. A change here is a new suite version.

export const TILES: i32 = 8;
const SIDE: i32 = 160;
const TILE_BYTES: i32 = SIDE * SIDE;
/** Of all tiles together. */
export const RAW_BYTES: i32 = TILES * TILE_BYTES;

const RAW: usize = 0x10000;
const PACKED: usize = 0x50000;
const UNPACKED: usize = 0x90000;
const HASH_BITS: i32 = 13;
const HASHES: usize = 0xa0000; // positions + 1 of the last place with this hash
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

/** Compresses one tile to the place after what was packed before; answers the packed length. */
export function pack(tile: i32, offset: i32): i32 {
  memory.fill(HASHES, 0, (<usize>1 << HASH_BITS) * 4);
  let from: i32 = tile * TILE_BYTES;
  let literal: i32 = from;
  const end = from + TILE_BYTES;
  const first = from;
  let to: usize = PACKED + <usize>offset;
  const last = end - LEAST_MATCH;
  while (from <= last) {
    const slot = HASHES + (hashAt(RAW + from) << 2);
    const before: i32 = load<i32>(slot) - 1;
    store<i32>(slot, from + 1);
    let length = 0;
    if (before >= first && from - before <= WINDOW && load<u32>(RAW + before) == load<u32>(RAW + from)) {
      length = LEAST_MATCH;
      const most = min<i32>(MOST_MATCH, end - from);
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
    const after = from + length;
    from++;
    while (from < after && from <= last) {
      store<i32>(HASHES + (hashAt(RAW + from) << 2), from + 1);
      from++;
    }
    from = after;
    literal = after;
  }
  to = literals(to, literal, end);
  return <i32>(to - PACKED) - offset;
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

/** Unpacks one tile; answers the number of bytes. */
export function unpack(offset: i32, packedLength: i32): i32 {
  let from: usize = PACKED + <usize>offset;
  const end = from + <usize>packedLength;
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

/** Whether what was unpacked last is this tile. */
export function same(tile: i32): bool {
  return memory.compare(RAW + <usize>(tile * TILE_BYTES), UNPACKED, TILE_BYTES) == 0;
}

/** A digest of all packed bytes, to be compared with the known answer. */
export function digest(packedLength: i32): u32 {
  let h: u32 = 0x811c9dc5;
  for (let i = 0; i < packedLength; i++) {
    h = (h ^ load<u8>(PACKED + i)) * 0x01000193;
  }
  return h;
}

/** Packs and unpacks every tile once and checks each. The answer is the packed length of all; 0 where a tile differs. */
export function operate(): u32 {
  let offset = 0;
  for (let tile = 0; tile < TILES; tile++) {
    const length = pack(tile, offset);
    if (unpack(offset, length) != TILE_BYTES || !same(tile)) return 0;
    offset += length;
  }
  return <u32>offset;
}
