import wasm from '../generated/memory.wasm?url';
import type { Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import { runInWorker } from '../worker-run.ts';
import { FLOWS } from './flow.ts';
import script from './memory.worker.ts?worker&url';

/** Bandwidth or latency over the size of what is worked on. */
export function memoryWorkload(key: string): Workload | null {
  const flow = FLOWS.find((f) => key === `memory-${f}`);
  if (!flow) return null;
  return {
    key,
    assets: [script, wasm],
    obstacle: wasmObstacle,
    run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { flow, url: wasm }),
  };
}
