import type { Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';

/** Drawings per second on a canvas that is not shown. */
export const workload: Workload = {
  key: 'transect-sketch',
  obstacle() {
    let able = false;
    try {
      able = typeof OffscreenCanvas === 'function' && new OffscreenCanvas(1, 1).getContext('2d') !== null;
    } catch {
      // Some browsers have the name but not this kind of context.
    }
    return able ? null : { reason: 'NOT_SUPPORTED', words: 'This browser cannot draw on a canvas that is not shown.' };
  },
  run: (options) => runInWorker(new Worker(new URL('./sketch.worker.ts', import.meta.url), { type: 'module' }), options),
};
