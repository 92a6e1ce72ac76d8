import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { WrongAnswer } from '../types.ts';
import { instantiate } from '../wasm.ts';
import { KERNELS, kernelOf, type Kernel } from './kernels.ts';
import { fieldnoteMatch, footpathSearch, lanternPaths, plateFilter, plotMatrix, roostOrbits, specimenSort, weirHash } from './plain.test.helpers.ts';
import { checkLast, work } from './work.ts';

export const load = <T = Kernel>(name: string) => instantiate<T>(readFileSync(new URL(`../generated/${name}.wasm`, import.meta.url)));

/** Tiles have a reader of their own beside them, and the transform is held against its definition. */
const PLAIN: Record<string, (seed: number) => number> = {
  'weir-hash': weirHash,
  'specimen-sort': specimenSort,
  'footpath-search': footpathSearch,
  'fieldnote-match': fieldnoteMatch,
  'plot-matrix': plotMatrix,
  'plot-matrix-simd': plotMatrix,
  'roost-orbits': (seed) => roostOrbits(seed, false),
  'roost-orbits-simd': (seed) => roostOrbits(seed, true),
  'lantern-paths': lanternPaths,
  'plate-filter': plateFilter,
  'plate-filter-simd': plateFilter,
};

describe.each(Object.keys(PLAIN))('%s', (name) => {
  test('has the known answer of the plain implementation', () => {
    expect(KERNELS[name]!.answer).toBe(PLAIN[name]!(KERNELS[name]!.seed));
  });

  test('agrees with the plain implementation for other seeds too', async () => {
    const kernel = await load(name);
    for (const seed of [1, 0xdeadbeef]) {
      kernel.prepare(seed);
      expect(kernel.operate() >>> 0).toBe(PLAIN[name]!(seed));
    }
  });
});

test.each(Object.keys(KERNELS))('%s gives the same answer in every round, and another seed does not pass', async (name) => {
  const kernel = await load(name);
  const run = work(kernel, KERNELS[name]!);
  run(3);
  checkLast(kernel, KERNELS[name]!);
  kernel.prepare(KERNELS[name]!.seed + 1);
  expect(() => run(1)).toThrow(WrongAnswer);
});

test('the transform is the one of the textbook, and comes back', async () => {
  const points = 4096;
  const kernel = await load<Kernel & { memory: WebAssembly.Memory; SOURCE: { value: number }; WORK: { value: number }; reload(): void; transform(back: number): void }>('tide-spectrum');
  kernel.prepare(KERNELS['tide-spectrum']!.seed);
  kernel.reload();
  kernel.transform(1);
  const source = new Float64Array(kernel.memory.buffer, kernel.SOURCE.value, 2 * points);
  const there = new Float64Array(kernel.memory.buffer, kernel.WORK.value, 2 * points);
  for (const k of [0, 1, 17, 2048, 4095]) {
    let [re, im] = [0, 0];
    for (let n = 0; n < points; n++) {
      const angle = (-2 * Math.PI * ((k * n) % points)) / points;
      re += source[2 * n]! * Math.cos(angle) - source[2 * n + 1]! * Math.sin(angle);
      im += source[2 * n]! * Math.sin(angle) + source[2 * n + 1]! * Math.cos(angle);
    }
    expect(there[2 * k]).toBeCloseTo(re, 8);
    expect(there[2 * k + 1]).toBeCloseTo(im, 8);
  }
  kernel.transform(-1);
  for (const n of [0, 1, 777, 4095]) expect(there[2 * n]! / points).toBeCloseTo(source[2 * n]!, 12);
});

test('a test is found by its key, with the number of its threads', () => {
  expect(kernelOf('weir-hash-one')).toEqual({ name: 'weir-hash', all: false });
  expect(kernelOf('plate-filter-simd-all')).toEqual({ name: 'plate-filter-simd', all: true });
  expect(kernelOf('map-tile-crush')).toEqual({ name: 'map-tile-crush', all: false });
  expect(kernelOf('species-list')).toBeNull();
  expect(kernelOf('toString')).toBeNull();
});
