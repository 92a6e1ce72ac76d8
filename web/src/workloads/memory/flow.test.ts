import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { sweep } from '../sweep.ts';
import { WrongAnswer } from '../types.ts';
import { instantiate } from '../wasm.ts';
import { FLOWS, placeOf, SIZES, STEPS, type MemoryFlow } from './flow.ts';

const load = () => instantiate<MemoryFlow & { memory: WebAssembly.Memory }>(readFileSync(new URL('../generated/memory.wasm', import.meta.url)));

test.each(FLOWS)('%s does its work at small and large sizes, and again in every round', async (flow) => {
  const memory = await load();
  for (const bytes of [SIZES[0]!, SIZES[3]!, SIZES[9]!]) {
    const place = placeOf(memory, flow, bytes)!;
    void place.work(2);
    void place.work(1);
    expect(place.x).toBe(bytes / 1024);
  }
});

test('a walk visits every line once before it comes back', async () => {
  const memory = await load();
  const bytes = 16 * 1024;
  memory.weave(bytes, 5);
  const seen = new Set<number>();
  const words = new Int32Array(memory.memory.buffer, 0x10000, bytes / 4);
  for (let at = 0, i = 0; i < bytes / 64; i++) {
    seen.add(at);
    at = words[at / 4]!;
  }
  expect(seen.size).toBe(bytes / 64);
  expect(memory.walk(bytes / 64, 0)).toBe(0);
  expect(memory.walk(STEPS, 64)).toBe(64);
});

test('a disturbed byte is noticed', async () => {
  const memory = await load();
  const place = placeOf(memory, 'read', SIZES[0]!)!;
  new Float64Array(memory.memory.buffer, 0x10000)[100]! += 1;
  expect(() => place.work(1)).toThrow(WrongAnswer);
});

test('memory that cannot be had is said, not thrown', async () => {
  const memory = { ...(await load()), reach: (bytes: number) => (bytes <= SIZES[2]! ? 1 : 0) };
  expect(placeOf(memory, 'copy', SIZES[3]!)).toBeNull();
  let now = 0;
  const { points, short } = await sweep(SIZES.slice(0, 6), (bytes) => {
    const place = placeOf(memory, 'copy', bytes);
    return place && { ...place, work: (rounds: number) => void (now += rounds) };
  }, { timedMs: 600, clockResolutionMs: 0.005, now: () => now });
  expect(points).toHaveLength(3);
  expect(short).toBe(true);
  // The made-up clock says one round a millisecond.
  expect(points[1]!.y).toBeCloseTo((SIZES[1]! / 1e9) * 1000, 9);
});
