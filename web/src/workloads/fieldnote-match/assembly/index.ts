// Matching of patterns in text: letters, classes, and items that may be left out or repeated, all alternatives
// followed at once as bits of a word. docs/method.md says why. A change here is a new suite version.

export const TEXT_BYTES: i32 = 32768;
const TEXT: usize = 0x20000;
const TABLES: usize = 0x40000; // for each pattern 256 words: the items a byte fits
const SYLLABLES = 'reedsalttarnwillmarshheronotterplovergodwitsedgebankstonemudrilltideebbflow';
/** A letter, any of [a-f], any letter as a dot; then ? (none or one), * (any number), + (one or more) or nothing. */
const PATTERNS = ['re+d[a-m]*l', 'heron.?o', '[m-t]ar[s-n]?h', 'go+dwi[a-t]', 'e+b*[a-f]lo', 'ti?de.*o', 'plo[r-z]er[m-s]*t', '[a-e]+nk'];
const COUNT: i32 = 8;
const ITEMS = new StaticArray<i32>(COUNT);
const REPEATS = new StaticArray<u32>(COUNT);
const OPTIONAL = new StaticArray<u32>(COUNT);

/** Writes the text and reads the patterns. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  let at = 0;
  while (at < TEXT_BYTES) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const from = <i32>(x % <u32>(SYLLABLES.length - 6));
    const length = 2 + <i32>((x >>> 9) % 5);
    for (let i = 0; i < length && at < TEXT_BYTES; i++) store<u8>(TEXT + at++, <u8>SYLLABLES.charCodeAt(from + i));
    if (((x >>> 20) & 3) == 0 && at < TEXT_BYTES) store<u8>(TEXT + at++, 32);
  }
  for (let p = 0; p < COUNT; p++) read(p, PATTERNS[p]);
}

function read(p: i32, pattern: string): void {
  const table = TABLES + (<usize>p << 10);
  memory.fill(table, 0, 1024);
  let item = 0;
  let i = 0;
  unchecked((REPEATS[p] = 0));
  unchecked((OPTIONAL[p] = 0));
  while (i < pattern.length) {
    let low = pattern.charCodeAt(i);
    let high = low;
    if (low == 46) {
      low = 97;
      high = 122;
    } else if (low == 91) {
      low = pattern.charCodeAt(i + 1);
      high = pattern.charCodeAt(i + 3);
      i += 4;
    }
    i++;
    // A class may be written from either end.
    for (let c = min<i32>(low, high); c <= max<i32>(low, high); c++) store<u32>(table + (<usize>c << 2), load<u32>(table + (<usize>c << 2)) | (1 << item));
    if (i < pattern.length) {
      const sign = pattern.charCodeAt(i);
      if (sign == 42 || sign == 43) unchecked((REPEATS[p] |= 1 << item));
      if (sign == 42 || sign == 63) unchecked((OPTIONAL[p] |= 1 << item));
      if (sign == 42 || sign == 43 || sign == 63) i++;
    }
    item++;
  }
  unchecked((ITEMS[p] = item));
}

/** Also the items behind those that may be left out. */
// @ts-ignore: decorator
@inline
function reach(active: u32, optional: u32): u32 {
  let all = active;
  let more = all | ((all & optional) << 1);
  while (more != all) {
    all = more;
    more = all | ((all & optional) << 1);
  }
  return all;
}

/** Looks for every pattern at every place. The answer depends on the end of each match. */
export function operate(): u32 {
  let h: u32 = 0x811c9dc5;
  for (let p = 0; p < COUNT; p++) {
    const table = TABLES + (<usize>p << 10);
    const repeats = unchecked(REPEATS[p]);
    const optional = unchecked(OPTIONAL[p]);
    const found: u32 = 1 << unchecked(ITEMS[p]);
    const first = reach(1, optional);
    let active: u32 = first;
    let matches: u32 = 0;
    for (let i = 0; i < TEXT_BYTES; i++) {
      const fits = active & load<u32>(table + (<usize>load<u8>(TEXT + i) << 2));
      active = reach((fits << 1) | (fits & repeats), optional) | first;
      if (active & found) {
        matches++;
        h = (h ^ <u32>i) * 0x01000193;
      }
    }
    h = (h ^ matches) * 0x01000193;
  }
  return h;
}
