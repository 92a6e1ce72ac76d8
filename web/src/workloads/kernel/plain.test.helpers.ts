/**
 * The compiled workloads once more, in plain JavaScript for the tests: slow, and sharing nothing with the compiled ones.
 * Each answers what the compiled one should.
 */

/** The generator every workload fills its data with. */
function* numbers(seed: number): Generator<number, never> {
  let x = seed >>> 0;
  for (;;) {
    x = (x ^ (x << 13)) >>> 0;
    x = (x ^ (x >>> 17)) >>> 0;
    x = (x ^ (x << 5)) >>> 0;
    yield x;
  }
}

const rotl = (x: number, n: number) => ((x << n) | (x >>> (32 - n))) >>> 0;
const fold = (h: number, word: number) => Math.imul(h ^ word, 0x01000193) >>> 0;
const EMPTY = 0x811c9dc5;

/** Folds the bits of 64-bit numbers: the order and every bit matter. */
function foldBits(values: Float64Array): number {
  const words = new BigUint64Array(values.buffer, values.byteOffset, values.length);
  let h = 0xcbf29ce484222325n;
  for (const word of words) {
    const mixed = h ^ word;
    h = BigInt.asUintN(64, ((mixed << 23n) | (mixed >> 41n)) & 0xffffffffffffffffn);
    h = BigInt.asUintN(64, h * 0x9e3779b97f4a7c15n);
  }
  return Number((h ^ (h >> 32n)) & 0xffffffffn);
}

const signed = (x: number) => (x | 0) / 2147483648;

export function weirHash(seed: number): number {
  const random = numbers(seed);
  const block = Uint32Array.from({ length: 4096 }, () => random.next().value);
  let [a, b, c, d] = [0x79617272, 0x6f776d61, 0x726b7765, 0x69722121];
  for (let pass = 0; pass < 64; pass++) {
    for (let i = 0; i < block.length; i += 4) {
      a = (rotl((a + block[i]!) >>> 0, 7) ^ d) >>> 0;
      b = (rotl((b + ((block[i + 1]! ^ a) >>> 0)) >>> 0, 11) + c) >>> 0;
      c = (rotl((c ^ ((block[i + 2]! + b) >>> 0)) >>> 0, 17) + a) >>> 0;
      d = (rotl((d + ((block[i + 3]! ^ c) >>> 0)) >>> 0, 23) ^ b) >>> 0;
    }
    a = (a + pass) >>> 0;
  }
  return (a ^ b ^ c ^ d) >>> 0;
}

/** By the language's own sort. */
export function specimenSort(seed: number): number {
  const random = numbers(seed);
  const records = Array.from({ length: 16384 }, (_, number) => {
    const x = random.next().value;
    return { key: x % 40009, number, high: Number(BigInt.asUintN(64, BigInt(x) * 0x9e3779b97f4a7c15n) >> 32n) };
  });
  records.sort((a, b) => a.key - b.key || a.number - b.number);
  return records.reduce((h, r) => fold(h, r.key ^ rotl(r.number, 16) ^ r.high), EMPTY);
}

/** By going through all paths until no distance shrinks any more, which needs no heap. */
export function footpathSearch(seed: number): number {
  const places = 8192;
  const random = numbers(seed);
  const paths: [from: number, to: number, length: number][] = [];
  for (let place = 0; place < places; place++) {
    for (let path = 0; path < 5; path++) {
      const x = random.next().value;
      const jump = path === 0 ? 1 : path === 1 ? -1 : path === 2 ? 90 + (x % 3) : path === 3 ? -90 - (x % 3) : (x >>> 8) % places;
      paths.push([place, (place + jump + places) % places, path === 4 ? 400 + (x & 1023) : 10 + ((x >>> 4) & 63)]);
    }
  }
  const distance = new Float64Array(places).fill(Infinity);
  distance[seed % places] = 0;
  for (let shrank = true; shrank; ) {
    shrank = false;
    for (const [from, to, length] of paths) {
      if (distance[from]! + length < distance[to]!) {
        distance[to] = distance[from]! + length;
        shrank = true;
      }
    }
  }
  return distance.reduce((h, d) => fold(h, d === Infinity ? 0xffffffff : d), EMPTY);
}

const SYLLABLES = 'reedsalttarnwillmarshheronotterplovergodwitsedgebankstonemudrilltideebbflow';
const PATTERNS = ['re+d[a-m]*l', 'heron.?o', '[m-t]ar[n-s]?h', 'go+dwi[a-t]', 'e+b*[a-f]lo', 'ti?de.*o', 'plo[r-z]er[m-s]*t', '[a-e]+nk'];

/** By the language's own regular expressions: whether one matches that ends at this very byte. */
export function fieldnoteMatch(seed: number): number {
  const random = numbers(seed);
  let text = '';
  while (text.length < 32768) {
    const x = random.next().value;
    const from = x % (SYLLABLES.length - 6);
    text += SYLLABLES.slice(from, from + 2 + ((x >>> 9) % 5));
    if (((x >>> 20) & 3) === 0) text += ' ';
  }
  text = text.slice(0, 32768);
  let h = EMPTY;
  for (const pattern of PATTERNS) {
    const ending = new RegExp(`(?:${pattern.replaceAll('.', '[a-z]')})$`);
    let matches = 0;
    for (let i = 0; i < text.length; i++) {
      // No match crosses a space, so the word so far is enough.
      const word = text.slice(text.lastIndexOf(' ', i) + 1, i + 1);
      if (text[i] !== ' ' && ending.test(word)) {
        matches++;
        h = fold(h, i);
      }
    }
    h = fold(h, matches);
  }
  return h;
}

/** Each element by its row and column. */
export function plotMatrix(seed: number): number {
  const side = 128;
  const random = numbers(seed);
  const a = Float64Array.from({ length: side * side }, () => signed(random.next().value));
  const b = Float64Array.from({ length: side * side }, () => signed(random.next().value));
  const c = new Float64Array(side * side);
  for (let i = 0; i < side; i++) {
    for (let j = 0; j < side; j++) {
      for (let k = 0; k < side; k++) c[i * side + j]! += a[i * side + k]! * b[k * side + j]!;
    }
  }
  return foldBits(c);
}

/** One pull after the other; pairwise: even and odd bodies are summed apart, as with two numbers to an instruction. */
export function roostOrbits(seed: number, pairwise: boolean): number {
  const random = numbers(seed);
  const bodies = Array.from({ length: 96 }, () => Array.from({ length: 8 }, (_, part) => {
    const value = signed(random.next().value);
    return part === 3 ? 1.5 + value : part === 7 ? 0 : value;
  }));
  for (let step = 0; step < 8; step++) {
    for (const a of bodies) {
      const sums = [[0, 0, 0], [0, 0, 0]];
      bodies.forEach((b, j) => {
        const d = [b[0]! - a[0]!, b[1]! - a[1]!, b[2]! - a[2]!];
        const square = d[0]! * d[0]! + d[1]! * d[1]! + d[2]! * d[2]! + 0.01;
        const pull = b[3]! / (square * Math.sqrt(square));
        const sum = sums[pairwise ? j % 2 : 0]!;
        for (let axis = 0; axis < 3; axis++) sum[axis]! += d[axis]! * pull;
      });
      for (let axis = 0; axis < 3; axis++) a[4 + axis]! += (sums[0]![axis]! + sums[1]![axis]!) * 0.001;
    }
    for (const a of bodies) for (let axis = 0; axis < 3; axis++) a[axis]! += a[4 + axis]! * 0.001;
  }
  // The two modes keep their numbers in another order: by body, or by part.
  const parts = Array.from({ length: 8 }, (_, part) => bodies.map((b) => b[part]!));
  return foldBits(Float64Array.from((pairwise ? parts : bodies).flat()));
}

interface Sphere { at: number[]; radius: number; colour: number; light: number }

export function lanternPaths(seed: number): number {
  let random = numbers(seed);
  const next = () => random.next().value / 4294967296;
  const spheres: Sphere[] = [{ at: [0, -1000, 0], radius: 1000, colour: 0.6, light: 0 }, { at: [0.5, 2.6, 4], radius: 0.7, colour: 0, light: 9 }];
  while (spheres.length < 9) {
    const radius = 0.25 + 0.4 * next();
    const at = [4 * next() - 2, radius, 2.5 + 4 * next()];
    spheres.push({ at, radius, colour: 0.35 + 0.6 * next(), light: 0 });
  }
  const dot = (a: number[], b: number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const follow = (right: number, up: number): number => {
    let from = [0, 1.2, -2];
    const long = Math.sqrt(right * right + up * up + 1);
    let way = [right / long, up / long, 1 / long];
    let left = 1;
    for (let bounce = 0; bounce < 4; bounce++) {
      let nearest = 1e30;
      let hit: Sphere | null = null;
      for (const s of spheres) {
        const to = s.at.map((v, i) => v - from[i]!);
        const along = dot(to, way);
        const inside = along * along - dot(to, to) + s.radius * s.radius;
        if (inside <= 0) continue;
        const root = Math.sqrt(inside);
        const t = along - root > 1e-4 ? along - root : along + root;
        if (t > 1e-4 && t < nearest) [nearest, hit] = [t, s];
      }
      if (!hit) return left * (way[1]! > 0 ? 0.3 * way[1]! : 0);
      if (hit.light > 0) return left * hit.light;
      left *= hit.colour;
      from = from.map((v, i) => v + way[i]! * nearest);
      const normal = from.map((v, i) => (v - hit.at[i]!) / hit.radius);
      let ball: number[];
      do ball = [2 * next() - 1, 2 * next() - 1, 2 * next() - 1];
      while (dot(ball, ball) > 1);
      const turned = normal.map((v, i) => v + ball[i]!);
      const length = Math.sqrt(dot(turned, turned)) + 1e-12;
      way = turned.map((v) => v / length);
    }
    return 0;
  };
  random = numbers(seed);
  let h = EMPTY;
  for (let row = 0; row < 32; row++) {
    for (let column = 0; column < 48; column++) {
      let bright = 0;
      for (let path = 0; path < 4; path++) {
        const right = (column + next() - 24) / 24;
        bright += follow(right, (16 - row - next()) / 24);
      }
      h = fold(h, Math.trunc(Math.min(65535, bright * 4096)));
    }
  }
  return h;
}

export function plateFilter(seed: number): number {
  const side = 256;
  const random = numbers(seed);
  const source = Uint8Array.from({ length: 3 * side * side }, (_, i) => {
    const x = random.next().value;
    const [row, column] = [(i >> 8) & 255, i & 255];
    const band = ((row * 3 + column * (1 + (i >> 16))) >> 4) & 7;
    return band * 24 + ((row ^ column) & 31) + (x & 15);
  });
  const weights = [1, 4, 6, 4, 1];
  const smooth = (from: Uint8Array, at: number, step: number) => (weights.reduce((sum, w, i) => sum + w * from[at + (i - 2) * step]!, 0) + 8) >> 4;
  const inner = (v: number) => v >= 2 && v < side - 2;
  const across = source.map((v, at) => (inner(at % side) ? smooth(source, at, 1) : v));
  const result = source.map((v, at) => (inner((at >> 8) & 255) ? Math.max(0, Math.min(255, 2 * v - smooth(across, at, side))) : v));
  return new Uint32Array(result.buffer).reduce(fold, EMPTY);
}
