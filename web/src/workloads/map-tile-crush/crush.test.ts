import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { KERNELS, type Kernel } from '../kernel/kernels.ts';
import { checkLast } from '../kernel/work.ts';
import { WrongAnswer } from '../types.ts';
import { instantiate } from '../wasm.ts';

/** Offsets and lengths are in bytes of the packed tiles. */
interface MapTileCrush extends Kernel {
  TILES: { value: number };
  RAW_BYTES: { value: number };
  memory: WebAssembly.Memory;
  pack(tile: number, offset: number): number;
}

const FACTS = KERNELS['map-tile-crush']!;

const RAW = 0x10000;
const PACKED = 0x50000;
const load = () => instantiate<MapTileCrush>(readFileSync(new URL('../generated/map-tile-crush.wasm', import.meta.url)));

/** Reads the packed format once more, in plain JavaScript, from its description in docs/method.md. */
function plainUnpack(packed: Uint8Array): Uint8Array {
  const out: number[] = [];
  let at = 0;
  while (at < packed.length) {
    let count = packed[at++]!;
    while (count === 255) {
      for (let i = 0; i < 254; i++) out.push(packed[at++]!);
      count = packed[at++]!;
    }
    for (let i = 0; i < count; i++) out.push(packed[at++]!);
    if (at >= packed.length) break;
    const length = packed[at]! + 4;
    const distance = packed[at + 1]! | (packed[at + 2]! << 8);
    at += 3;
    for (let i = 0; i < length; i++) out.push(out[out.length - distance]!);
  }
  return Uint8Array.from(out);
}

function plainDigest(bytes: Uint8Array): number {
  return bytes.reduce((h, b) => Math.imul(h ^ b, 0x01000193) >>> 0, 0x811c9dc5);
}

test('every packed tile can be read by a plain reader, and all have the known length and digest', async () => {
  const crush = await load();
  crush.prepare(FACTS.seed);
  const tileBytes = crush.RAW_BYTES.value / crush.TILES.value;
  let offset = 0;
  for (let tile = 0; tile < crush.TILES.value; tile++) {
    const length = crush.pack(tile, offset);
    const raw = new Uint8Array(crush.memory.buffer, RAW + tile * tileBytes, tileBytes);
    expect(Buffer.compare(plainUnpack(new Uint8Array(crush.memory.buffer, PACKED + offset, length)), raw)).toBe(0);
    offset += length;
  }
  expect(offset).toBe(FACTS.answer);
  expect(plainDigest(new Uint8Array(crush.memory.buffer, PACKED, offset))).toBe(FACTS.last!.answer);
  // Tiles that hardly shrink, or shrink to nothing, would not stand for maps.
  expect(crush.RAW_BYTES.value / offset).toBeGreaterThan(2.5);
  expect(crush.RAW_BYTES.value / offset).toBeLessThan(20);
});

test('other tiles survive packing and unpacking', async () => {
  const crush = await load();
  for (const seed of [3, 99, 4711]) {
    crush.prepare(seed);
    expect(crush.operate() >>> 0).toBeGreaterThan(1000);
  }
});

test('a packed byte that is not the known one does not pass', async () => {
  const crush = await load();
  crush.prepare(FACTS.seed);
  crush.operate();
  checkLast(crush, FACTS);
  new Uint8Array(crush.memory.buffer)[PACKED + 1000]! ^= 1;
  expect(() => checkLast(crush, FACTS)).toThrow(WrongAnswer);
});
