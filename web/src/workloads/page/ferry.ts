import { measure } from '../measure.ts';
import { type Measurement, type RunOptions, WrongAnswer } from '../types.ts';
import { openFrame } from './frame.ts';

/** Loads answered by a service worker of the page's own: the way of every page that works without a network. */
const LOADS = 16;
const LOAD_BYTES = 16_384;
const SCOPE = '/ferry/';
export const FERRY_FILES = ['/ferry/ferry.js', '/ferry/index.html'];

export async function ferry(options: RunOptions): Promise<Measurement> {
  const registered = await navigator.serviceWorker.register('/ferry/ferry.js', { scope: SCOPE }).catch((error: unknown) => {
    if (error instanceof DOMException && error.name === 'SecurityError') {
      throw new Error("This browser allows no service worker with a certificate it was only told to accept. Install the server's certificate on the device, or give the server one of your own.");
    }
    throw error;
  });
  let frame: HTMLIFrameElement | undefined;
  try {
    await active(registered);
    // A page inside the worker's scope: this one is not, so nothing else is touched.
    const opened = await openFrame(options.host, '', 'The page whose loads are being measured', '/ferry/index.html');
    frame = opened.frame;
    const load = opened.window.fetch.bind(opened.window);
    let next = 0;
    return await measure(async (rounds) => {
      for (let i = 0; i < rounds; i++) {
        await Promise.all(Array.from({ length: LOADS }, async () => {
          const number = next++ % 1000;
          const bytes = new Uint8Array(await (await load(`/ferry/load/${number}`)).arrayBuffer());
          if (bytes.length !== LOAD_BYTES || bytes[0] !== number % 251 || bytes[LOAD_BYTES - 1] !== number % 251) throw new WrongAnswer('A load is not what was asked for.');
        }));
      }
    }, LOADS, {
      timedMs: options.timedMs,
      clockResolutionMs: options.clockResolutionMs,
      now: () => performance.now(),
      between: () => options.signal.throwIfAborted(),
    });
  } finally {
    frame?.remove();
    await registered.unregister();
  }
}

function active(registered: ServiceWorkerRegistration): Promise<void> {
  const worker = registered.active ?? registered.waiting ?? registered.installing;
  if (!worker) return Promise.reject(new Error('the service worker did not start'));
  if (worker.state === 'activated') return Promise.resolve();
  return new Promise((resolve, reject) => {
    worker.onstatechange = () => {
      if (worker.state === 'activated') resolve();
      if (worker.state === 'redundant') reject(new Error('the service worker was given up'));
    };
  });
}
