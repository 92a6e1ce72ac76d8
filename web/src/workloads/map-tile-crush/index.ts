import type { Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import { runInWorker } from '../worker-run.ts';

/** Megabytes of tiles per second, packed and unpacked again, on one thread. */
export const workload: Workload = {
  key: 'map-tile-crush',
  obstacle: wasmObstacle,
  run: (options) => runInWorker(new Worker(new URL('./crush.worker.ts', import.meta.url), { type: 'module' }), options),
};
