/// <reference types="@webgpu/types" />
import { SIZES } from '../graphics/gl.ts';
import { SCENES } from '../graphics/scenes.ts';
import type { Obstacle, Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import script from './gpu.worker.ts?worker&url';

async function obstacle(): Promise<Obstacle | null> {
  if (!('gpu' in navigator)) {
    return { reason: 'NOT_SUPPORTED', words: isSecureContext ? 'This browser has no WebGPU.' : 'WebGPU needs a secure connection here, or a browser that has it.' };
  }
  const adapter = await navigator.gpu.requestAdapter().catch(() => null);
  return adapter ? null : { reason: 'NOT_SUPPORTED', words: 'This browser has WebGPU, but nothing that draws with it.' };
}

/** The off-screen scenes once more, by the newer of the two graphics interfaces. */
export function gpuWorkload(key: string): Workload | null {
  const [, scene, size] = /^gpu-(.+)-(\d+)$/.exec(key) ?? [];
  if (!scene || !size || !Object.hasOwn(SCENES, scene) || !Object.hasOwn(SIZES, size)) return null;
  return { key, assets: [script], obstacle, run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { scene, size: SIZES[size] }) };
}
