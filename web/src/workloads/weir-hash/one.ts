import wasm from '../generated/weir-hash.wasm?url';
import type { Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import { runInWorker } from '../worker-run.ts';
import script from './one.worker.ts?worker&url';

/** Operations per second on one thread. */
export const workload: Workload = {
  key: 'weir-hash-one',
  assets: [script, wasm],
  obstacle: wasmObstacle,
  run: (options) => runInWorker(new Worker(script, { type: 'module' }), options),
};
