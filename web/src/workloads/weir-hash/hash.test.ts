import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { WrongAnswer } from '../types.ts';
import { instantiate } from '../wasm.ts';
import { KNOWN_ANSWER, SEED, work, type WeirHash } from './hash.ts';

const rotl = (x: number, n: number) => ((x << n) | (x >>> (32 - n))) >>> 0;

/** The hash once more, in plain JavaScript: slow, and sharing nothing with the compiled one. */
function plainHash(seed: number): number {
  const block = new Uint32Array(4096);
  let x = seed >>> 0;
  for (let i = 0; i < block.length; i++) {
    x = (x ^ (x << 13)) >>> 0;
    x = (x ^ (x >>> 17)) >>> 0;
    x = (x ^ (x << 5)) >>> 0;
    block[i] = x;
  }
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

const load = () => instantiate<WeirHash>(readFileSync(new URL('../generated/weir-hash.wasm', import.meta.url)));

test('the known answer is the plain hash', () => {
  expect(KNOWN_ANSWER).toBe(plainHash(SEED));
});

test('the compiled hash agrees for other seeds too', async () => {
  const hash = await load();
  for (const seed of [1, 7, 0xdeadbeef]) {
    hash.prepare(seed);
    expect(hash.operate() >>> 0).toBe(plainHash(seed));
  }
});

test('a wrong answer does not pass', async () => {
  const hash = await load();
  const run = work(hash);
  run(2);
  hash.prepare(SEED + 1);
  expect(() => run(1)).toThrow(WrongAnswer);
});
