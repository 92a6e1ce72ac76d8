import type { RunOptions } from '../types.ts';

/** The server's leave to measure, and what it says of itself. */
export interface Turn {
  ticket: string;
  limitMbit?: number;
  limitBy?: string;
  /** The device is the server's own machine. */
  here: boolean;
}

const ASK_EVERY_MS = 1_000;
const PATIENCE_MS = 60_000;

/** Resolves after so long; rejects when the run is stopped. */
export function pause(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const stop = () => {
      clearTimeout(timer);
      reject(signal.reason as Error);
    };
    const timer = setTimeout(() => {
      signal.removeEventListener('abort', stop);
      resolve();
    }, ms);
    if (signal.aborted) stop();
    else signal.addEventListener('abort', stop, { once: true });
  });
}

/** The server, as this device; says so where it refuses. */
export async function ask(options: RunOptions, path: string, init: RequestInit): Promise<Response> {
  if (!options.bench) throw new Error('The network can only be measured at a bench.');
  const answer = await options.bench(path, { signal: options.signal, ...init });
  if (!answer.ok) {
    const { detail } = (await answer.json().catch(() => ({}))) as { detail?: string };
    throw new Error(detail ?? `The server answered ${answer.status}.`);
  }
  return answer;
}

/** Waits until no other device measures, and measures then, with nothing else of ours on the line. */
export async function inTurn<T>(options: RunOptions, limitMs: number, work: (turn: Turn) => Promise<T>): Promise<T> {
  let turn: (Omit<Turn, 'ticket'> & { ticket?: string }) | undefined;
  for (;;) {
    turn = (await (await ask(options, 'network/turn', { method: 'POST' })).json()) as typeof turn;
    if (turn?.ticket) break;
    // Its turn is not its own time.
    options.more?.(PATIENCE_MS);
    await pause(ASK_EVERY_MS, options.signal);
  }
  options.more?.(limitMs);
  const loud = options.quiet?.();
  try {
    return await work(turn as Turn);
  } finally {
    loud?.();
    // The server takes the turn back by itself after some seconds without a word.
    await options.bench?.('network/turn', { method: 'DELETE' }).catch(() => undefined);
  }
}
