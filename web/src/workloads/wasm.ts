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

export function wasmObstacle(): Obstacle | null {
  if (typeof WebAssembly !== 'object') return { reason: 'NOT_SUPPORTED', words: 'This browser has no WebAssembly.' };
  if (typeof Worker !== 'function') return { reason: 'NOT_SUPPORTED', words: 'This browser has no workers.' };
  return null;
}
