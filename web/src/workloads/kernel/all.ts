import { endure } from '../endure.ts';
import { measure } from '../measure.ts';
import { failureOf, type FailureReason, type RunOptions, type Workload } from '../types.ts';
import { wasmObstacle } from '../wasm.ts';
import script from './all.worker.ts?worker&url';
import { KERNELS } from './kernels.ts';
import { sharingObstacle } from './sharing.ts';
import { kernelUrl } from './urls.ts';

type Answer = { kind: 'ready' } | { kind: 'done' } | { kind: 'failed'; message: string; reason?: FailureReason };

/**
 * A compiled workload on all logical processors together. The workers take rounds from one shared counter, so that
 * fast and slow cores each do what they can and none waits for another until the last round.
 */
export function allThreads(key: string, name: string): Workload {
  const url = kernelUrl(name);
  const facts = KERNELS[name]!;
  return {
    key,
    assets: [script, url],
    obstacle() {
      return sharingObstacle() ?? wasmObstacle(facts.simd);
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
                reject(failureOf(answer.message, answer.reason));
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
        await ask({ share, name, url }, 'ready');
        const work = (rounds: number) => {
          Atomics.store(left, 0, rounds);
          return ask('go', 'done');
        };
        const measured = await (options.endure ? endure : measure)(work, facts.perRound, {
          timedMs: options.timedMs,
          clockResolutionMs: options.clockResolutionMs,
          now: () => performance.now(),
        });
        if (options.endure) return measured;
        return { ...measured, more: [{ metric: 'per-thread', value: measured.rate / count, resolution: measured.resolution / count }], note: `${count} ${count === 1 ? 'worker' : 'workers'}` };
      } finally {
        workers.forEach((worker) => worker.terminate());
      }
    },
  };
}
