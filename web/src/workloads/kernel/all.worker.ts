import { reasonOf } from '../types.ts';
import { loadWasm } from '../wasm.ts';
import { KERNELS, type Kernel } from './kernels.ts';
import { work } from './work.ts';

/** Rounds still to be taken; each worker takes the next one until there are none. */
let left: Int32Array;
let operate: (rounds: number) => void;

self.onmessage = async (event: MessageEvent<{ share: SharedArrayBuffer; name: string; url: string } | 'go'>) => {
  try {
    if (event.data === 'go') {
      while (Atomics.sub(left, 0, 1) > 0) operate(1);
      self.postMessage({ kind: 'done' });
    } else {
      const { share, name, url } = event.data;
      left = new Int32Array(share);
      operate = work(await loadWasm<Kernel>(url), KERNELS[name]!);
      self.postMessage({ kind: 'ready' });
    }
  } catch (error) {
    self.postMessage({ kind: 'failed', message: error instanceof Error ? error.message : String(error), reason: reasonOf(error) });
  }
};
