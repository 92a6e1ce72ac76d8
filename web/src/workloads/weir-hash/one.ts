import type { Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import { runInWorker } from '../worker-run.ts';

/** Operations per second on one thread. */
export const workload: Workload = {
  key: 'weir-hash-one',
  obstacle: wasmObstacle,
  run: (options) => runInWorker(new Worker(new URL('./one.worker.ts', import.meta.url), { type: 'module' }), options),
};
