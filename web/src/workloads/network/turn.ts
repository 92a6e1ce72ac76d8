import { pause } from '../pause.ts';
import type { Question, RunOptions } from '../types.ts';

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

const waiting = (before: number): Question => ({
  title: 'Waiting for the line',
  words: [`${before === 1 ? 'Another device is' : `${before} other devices are`} before this one: two at once would measure each other. It goes on by itself.`],
  buttons: [],
});

/** Waits until no other device measures, and measures then, with nothing else of ours on the line. */
export async function inTurn<T>(options: RunOptions, limitMs: number, work: (turn: Turn) => Promise<T>): Promise<T> {
  let turn: (Omit<Turn, 'ticket'> & { ticket?: string; before: number }) | undefined;
  let said = { before: 0, over: new AbortController() };
  try {
    for (;;) {
      turn = (await (await ask(options, 'network/turn', { method: 'POST' })).json()) as NonNullable<typeof turn>;
      if (turn.ticket) break;
      // Its turn is not its own time.
      options.more?.(PATIENCE_MS);
      if (turn.before !== said.before) {
        said.over.abort(new Error('It is another place now.'));
        said = { before: turn.before, over: new AbortController() };
        void options.ask?.(waiting(turn.before), said.over.signal).catch(() => undefined);
      }
      await pause(ASK_EVERY_MS, options.signal);
    }
  } finally {
    said.over.abort(new Error('It waits no longer.'));
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
