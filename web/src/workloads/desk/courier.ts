import { measure } from '../measure.ts';
import { type Measurement, type RunOptions, WrongAnswer } from '../types.ts';
import script from './echo.worker.ts?worker&url';

/** Messages between a page and a worker: small ones that are copied, and buffers that are handed over. */
const SMALL = 40;
const LARGE = 4;
const BUFFER_BYTES = 1_048_576;
export const COURIER_FILES = [script];

export async function courier(options: RunOptions): Promise<Measurement> {
  const worker = new Worker(script, { type: 'module' });
  let heard: (data: unknown) => void = () => {};
  let failed: (error: Error) => void = () => {};
  worker.onmessage = (event) => heard(event.data);
  worker.onerror = (event) => failed(new Error(event.message || 'the worker could not be loaded'));
  const ask = <T>(message: unknown, transfer: Transferable[] = []): Promise<T> =>
    new Promise<T>((resolve, reject) => {
      heard = resolve as (data: unknown) => void;
      failed = reject;
      worker.postMessage(message, transfer);
    });
  let buffer = new ArrayBuffer(BUFFER_BYTES);
  let number = 0;
  let handed = 0;
  try {
    return await measure(async (rounds) => {
      for (let i = 0; i < rounds; i++) {
        for (let n = 0; n < SMALL; n++) {
          const answer = await ask<{ number: number; words: string[] }>({ number, words: ['heron', 'weir', 'tarn'] });
          if (answer.number !== ++number || answer.words.length !== 3) throw new WrongAnswer('A message did not come back as it should.');
        }
        for (let n = 0; n < LARGE; n++) {
          buffer = await ask<ArrayBuffer>(buffer, [buffer]);
          if (buffer.byteLength !== BUFFER_BYTES || new Uint32Array(buffer)[0] !== ++handed) throw new WrongAnswer('A buffer did not come back as it should.');
        }
      }
    }, SMALL + LARGE, {
      timedMs: options.timedMs,
      clockResolutionMs: options.clockResolutionMs,
      now: () => performance.now(),
      between: () => options.signal.throwIfAborted(),
    });
  } finally {
    worker.terminate();
  }
}
