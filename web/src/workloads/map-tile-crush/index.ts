import wasm from '../generated/map-tile-crush.wasm?url';
import type { Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import { runInWorker } from '../worker-run.ts';
import script from './crush.worker.ts?worker&url';

/** Megabytes of tiles per second, packed and unpacked again, on one thread. */
export const workload: Workload = {
  key: 'map-tile-crush',
  assets: [script, wasm],
  obstacle: wasmObstacle,
  run: (options) => runInWorker(new Worker(script, { type: 'module' }), options),
};
