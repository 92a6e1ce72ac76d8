import type { Obstacle } from './types.ts';

/** Loads a compiled workload. Compiling is not part of any timing. */
export async function loadWasm<T>(url: string): Promise<T> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`the workload could not be loaded (${response.status})`);
  return instantiate<T>(await response.arrayBuffer());
}

export async function instantiate<T>(bytes: BufferSource): Promise<T> {
  const { instance } = await WebAssembly.instantiate(bytes, {
    env: { abort: () => { throw new Error('the workload stopped itself'); } },
  });
  return instance.exports as T;
}

/** The smallest module that needs instructions on several numbers at once. */
const SIMD_MODULE = Uint8Array.of(0, 97, 115, 109, 1, 0, 0, 0, 1, 5, 1, 96, 0, 1, 123, 3, 2, 1, 0, 10, 10, 1, 8, 0, 65, 0, 253, 15, 253, 98, 11);

export function wasmObstacle(simd = false): Obstacle | null {
  if (typeof WebAssembly !== 'object') return { reason: 'NOT_SUPPORTED', words: 'This browser has no WebAssembly.' };
  if (simd && !WebAssembly.validate(SIMD_MODULE)) return { reason: 'NOT_SUPPORTED', words: "This browser's WebAssembly has no instructions on several numbers at once (SIMD)." };
  if (typeof Worker !== 'function') return { reason: 'NOT_SUPPORTED', words: 'This browser has no workers.' };
  return null;
}
