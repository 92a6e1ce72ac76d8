// Sorting of records: a quicksort of our own that moves whole records, as a table that is sorted by a column does.
// docs/method.md says why. A change here is a new suite version.

export const RECORDS: i32 = 16384;
const SHORT: i32 = 12; // runs this short are sorted by insertion
const SOURCE: usize = 0x20000; // 16 bytes a record: key, number, 8 bytes that are carried along
const SORTED: usize = 0x70000;

/** Makes the records: a few keys are equal, so that their number decides. */
export function prepare(seed: u32): void {
  let x: u32 = seed;
  for (let i = 0; i < RECORDS; i++) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    const at = SOURCE + (<usize>i << 4);
    store<u32>(at, x % 40009);
    store<u32>(at + 4, i);
    store<u64>(at + 8, <u64>x * 0x9e3779b97f4a7c15);
  }
}

// @ts-ignore: decorator
@inline
function at(i: i32): usize {
  return SORTED + (<usize>i << 4);
}

/** Key above, number below: one comparison decides. */
// @ts-ignore: decorator
@inline
function rank(i: i32): u64 {
  return (<u64>load<u32>(at(i)) << 32) | <u64>load<u32>(at(i) + 4);
}

// @ts-ignore: decorator
@inline
function swap(i: i32, j: i32): void {
  const a = load<u64>(at(i));
  const b = load<u64>(at(i) + 8);
  store<u64>(at(i), load<u64>(at(j)));
  store<u64>(at(i) + 8, load<u64>(at(j) + 8));
  store<u64>(at(j), a);
  store<u64>(at(j) + 8, b);
}

function insertion(from: i32, to: i32): void {
  for (let i = from + 1; i <= to; i++) {
    const wanted = rank(i);
    const a = load<u64>(at(i));
    const b = load<u64>(at(i) + 8);
    let j = i - 1;
    while (j >= from && rank(j) > wanted) {
      store<u64>(at(j + 1), load<u64>(at(j)));
      store<u64>(at(j + 1) + 8, load<u64>(at(j) + 8));
      j--;
    }
    store<u64>(at(j + 1), a);
    store<u64>(at(j + 1) + 8, b);
  }
}

function sort(first: i32, last: i32): void {
  let from = first;
  let to = last;
  while (to - from >= SHORT) {
    const middle = (from + to) >>> 1;
    if (rank(middle) < rank(from)) swap(middle, from);
    if (rank(to) < rank(from)) swap(to, from);
    if (rank(to) < rank(middle)) swap(to, middle);
    const pivot = rank(middle);
    let i = from;
    let j = to;
    while (i <= j) {
      while (rank(i) < pivot) i++;
      while (rank(j) > pivot) j--;
      if (i <= j) swap(i++, j--);
    }
    // The shorter side by a call, the longer one by going on: the depth stays small whatever the order was.
    if (j - from < to - i) {
      sort(from, j);
      from = i;
    } else {
      sort(i, to);
      to = j;
    }
  }
  insertion(from, to);
}

/** Sorts all records once. The answer depends on every record and its place. */
export function operate(): u32 {
  memory.copy(SORTED, SOURCE, <usize>RECORDS << 4);
  sort(0, RECORDS - 1);
  let h: u32 = 0x811c9dc5;
  for (let i = 0; i < RECORDS; i++) {
    h = (h ^ load<u32>(at(i)) ^ rotl<u32>(load<u32>(at(i) + 4), 16) ^ load<u32>(at(i) + 12)) * 0x01000193;
  }
  return h;
}
