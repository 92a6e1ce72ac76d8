import url from '../generated/weir-hash.wasm?url';
import { loadWasm } from '../wasm.ts';
import { work, type WeirHash } from './hash.ts';

/** Rounds still to be taken; each worker takes the next one until there are none. */
let left: Int32Array;
let operate: (rounds: number) => void;

self.onmessage = async (event: MessageEvent<{ share: SharedArrayBuffer } | 'go'>) => {
  try {
    if (event.data === 'go') {
      while (Atomics.sub(left, 0, 1) > 0) operate(1);
      self.postMessage({ kind: 'done' });
    } else {
      left = new Int32Array(event.data.share);
      operate = work(await loadWasm<WeirHash>(url));
      self.postMessage({ kind: 'ready' });
    }
  } catch (error) {
    self.postMessage({ kind: 'failed', name: error instanceof Error ? error.constructor.name : '', message: String(error) });
  }
};
