import { pause } from '../pause.ts';

const LOST_MS = 10_000;

/** A way to the server and back, one small message at a time. */
export interface Echo {
  /** ms until the answer is here. */
  there(): Promise<number>;
  close(): void;
}

/** Opens a new connection of its own. */
export function openEcho(ticket: string, signal: AbortSignal): Promise<Echo> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/device/network/echo?ticket=${encodeURIComponent(ticket)}`);
    socket.binaryType = 'arraybuffer';
    let number = 0;
    let answered: ((data: ArrayBuffer) => void) | null = null;
    let failed: (error: Error) => void = reject;
    const stop = () => {
      socket.close();
      failed(signal.reason as Error);
    };
    const close = () => {
      signal.removeEventListener('abort', stop);
      failed = () => undefined;
      socket.close();
    };
    signal.addEventListener('abort', stop, { once: true });
    if (signal.aborted) stop();
    socket.onclose = (event) => failed(new Error(event.reason || 'The connection to the server was lost.'));
    socket.onmessage = (event: MessageEvent<ArrayBuffer>) => answered?.(event.data);
    socket.onopen = () =>
      resolve({
        close,
        there: () =>
          new Promise<number>((back, lost) => {
            const own = ++number;
            const late = setTimeout(() => lost(new Error(`No answer came within ${LOST_MS / 1000} s.`)), LOST_MS);
            failed = (error) => {
              clearTimeout(late);
              lost(error);
            };
            const message = new Uint32Array([own, own]);
            const begin = performance.now();
            answered = (data) => {
              const took = performance.now() - begin;
              if (data.byteLength !== message.byteLength || new Uint32Array(data)[0] !== own) return;
              clearTimeout(late);
              back(took);
            };
            if (socket.readyState === WebSocket.OPEN) socket.send(message);
            else failed(new Error('The connection to the server was lost.'));
          }),
      });
  });
}

/** There and back, again and again, until it is told to end. */
export async function keepAsking(echo: Echo, everyMs: number, times: number[], until: AbortSignal): Promise<void> {
  try {
    for (;;) {
      times.push(await echo.there());
      await pause(everyMs, until);
    }
  } catch (error) {
    if (!until.aborted) throw error;
  }
}
