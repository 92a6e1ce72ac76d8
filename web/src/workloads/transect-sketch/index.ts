import type { Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import script from './sketch.worker.ts?worker&url';

/** Drawings per second on a canvas that is not shown. */
export const workload: Workload = {
  key: 'transect-sketch',
  assets: [script],
  obstacle() {
    let able = false;
    try {
      able = typeof OffscreenCanvas === 'function' && new OffscreenCanvas(1, 1).getContext('2d') !== null;
    } catch {
      // Some browsers have the name but not this kind of context.
    }
    return able ? null : { reason: 'NOT_SUPPORTED', words: 'This browser cannot draw on a canvas that is not shown.' };
  },
  run: (options) => runInWorker(new Worker(script, { type: 'module' }), options),
};
