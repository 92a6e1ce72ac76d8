import type { Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import { runInWorker } from '../worker-run.ts';
import { KERNELS } from './kernels.ts';
import script from './one.worker.ts?worker&url';
import { kernelUrl } from './urls.ts';

/** A compiled workload on one thread. */
export function oneThread(key: string, name: string): Workload {
  const url = kernelUrl(name);
  return {
    key,
    assets: [script, url],
    obstacle: () => wasmObstacle(KERNELS[name]!.simd),
    run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { name, url }),
  };
}
