// Integer work: an add-rotate-xor hash of our own over a block that fits the first cache level.
// docs/method.md says why. A change here is a new suite version.

const WORDS: i32 = 4096; // 16 KiB
const PASSES: i32 = 64; // so that one operation hashes 1 MiB
const BLOCK: usize = 1024;

/** Fills the block from a seed: the same on every device. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < WORDS; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    store<u32>(BLOCK + (<usize>i << 2), x);
  }
}

/** One operation. The answer depends on every word in every pass. */
export function operate(): u32 {
  let a: u32 = 0x79617272;
  let b: u32 = 0x6f776d61;
  let c: u32 = 0x726b7765;
  let d: u32 = 0x69722121;
  for (let pass = 0; pass < PASSES; pass++) {
    for (let i = 0; i < WORDS; i += 4) {
      const at = BLOCK + (<usize>i << 2);
      a = rotl<u32>(a + load<u32>(at), 7) ^ d;
      b = rotl<u32>(b + (load<u32>(at + 4) ^ a), 11) + c;
      c = rotl<u32>(c ^ (load<u32>(at + 8) + b), 17) + a;
      d = rotl<u32>(d + (load<u32>(at + 12) ^ c), 23) ^ b;
    }
    a += <u32>pass;
  }
  return a ^ b ^ c ^ d;
}
