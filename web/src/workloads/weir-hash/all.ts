import wasm from '../generated/weir-hash.wasm?url';
import { measure } from '../measure.ts';
import type { RunOptions, Workload } from '../types.ts';
import { WrongAnswer } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import script from './all.worker.ts?worker&url';

type Answer = { kind: 'ready' } | { kind: 'done' } | { kind: 'failed'; name: string; message: string };

/**
 * Operations per second of all logical processors together. The workers take rounds from one shared counter, so that
 * fast and slow cores each do what they can and none waits for another until the last round.
 */
export const workload: Workload = {
  key: 'weir-hash-all',
  assets: [script, wasm],
  obstacle() {
    if (typeof SharedArrayBuffer !== 'function' || !globalThis.crossOriginIsolated) {
      return { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection: only then do browsers share memory between threads.' };
    }
    return wasmObstacle();
  },
  async run(options: RunOptions) {
    const count = Math.max(1, navigator.hardwareConcurrency || 1);
    const share = new SharedArrayBuffer(4);
    const left = new Int32Array(share);
    const workers = Array.from({ length: count }, () => new Worker(script, { type: 'module' }));
    const ask = (message: unknown, wanted: Answer['kind']) =>
      new Promise<void>((resolve, reject) => {
        const stop = () => reject(options.signal.reason);
        if (options.signal.aborted) return stop();
        options.signal.addEventListener('abort', stop, { once: true });
        let waiting = count;
        for (const worker of workers) {
          worker.onmessage = (event: MessageEvent<Answer>) => {
            const answer = event.data;
            if (answer.kind === 'failed') {
              reject(answer.name === WrongAnswer.name ? new WrongAnswer(answer.message) : new Error(answer.message));
            } else if (answer.kind === wanted && --waiting === 0) {
              options.signal.removeEventListener('abort', stop);
              resolve();
            }
          };
          worker.onerror = (event) => reject(new Error(event.message || 'a worker could not be loaded'));
          worker.postMessage(message);
        }
      });
    try {
      await ask({ share }, 'ready');
      const work = (rounds: number) => {
        Atomics.store(left, 0, rounds);
        return ask('go', 'done');
      };
      return await measure(work, 1, {
        timedMs: options.timedMs,
        clockResolutionMs: options.clockResolutionMs,
        now: () => performance.now(),
      });
    } finally {
      workers.forEach((worker) => worker.terminate());
    }
  },
};
