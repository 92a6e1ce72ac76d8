import type { RunOptions } from '../types.ts';
import { mbit, together, type Counted } from './numbers.ts';
import { ask } from './turn.ts';

const MIB = 1 << 20;
/** The server gives and takes no more in one request. */
const MOST = 64 * MIB;
const LEAST_UP = MIB / 8;
/** Small bodies are soon left behind: between two of them a browser takes tens of milliseconds. */
const GROWS = 4;
const STEP_MS = 100;
/** Of the timed part: a way finds its speed only after a while. */
const WARM_UP_SHARE = 1 / 4;
const LONGEST_WARM_UP_MS = 5_000;
/** A post that takes this share of the timed part is long enough for the pauses between posts not to count. */
const POST_SHARE = 1 / 4;
/** A step in which nothing came; a sample is above 0. */
const NOTHING = 0.001;

/** Throughput over the timed part, in Mbit/s, and of each tenth of a second. */
export interface Throughput {
  rate: number;
  samples: number[];
  timedMs: number;
}

const warmUp = (timedMs: number) => Math.min(LONGEST_WARM_UP_MS, timedMs * WARM_UP_SHARE);

function inWindow(streams: readonly Counted[], from: number, to: number): Throughput {
  // A step at the least: what is shorter than one says nothing.
  const end = Math.max(to, from + STEP_MS);
  const steps = together(streams, from, end, STEP_MS);
  const ms = steps.length * STEP_MS;
  return { rate: Math.max(NOTHING, mbit(steps.reduce((sum, bytes) => sum + bytes, 0), ms)), samples: steps.map((bytes) => Math.max(NOTHING, mbit(bytes, STEP_MS))), timedMs: ms };
}

/** Reads so many files at once until the timed part is over, and counts what comes. */
export async function download(count: number, timedMs: number, options: RunOptions): Promise<Throughput> {
  const over = new AbortController();
  const stop = () => over.abort(options.signal.reason);
  options.signal.addEventListener('abort', stop, { once: true });
  const begin = performance.now();
  const from = begin + warmUp(timedMs);
  const to = from + timedMs;
  const all: Counted & { counts: number[] } = { firstMs: begin, stepMs: STEP_MS / 10, counts: [] };
  const read = async () => {
    for (;;) {
      const { body } = await ask(options, `network/down?bytes=${MOST}`, { signal: over.signal });
      const reader = body!.getReader();
      for (;;) {
        const { done, value } = await reader.read();
        const now = performance.now();
        if (value) {
          const step = Math.floor((now - begin) / all.stepMs);
          all.counts[step] = (all.counts[step] ?? 0) + value.length;
        }
        if (now >= to) return void (await reader.cancel().catch(() => undefined));
        if (done) break;
      }
    }
  };
  try {
    // Where nothing comes any more, the end comes all the same.
    const silence = new Promise<void>((resolve) => setTimeout(resolve, to - begin + STEP_MS));
    await Promise.race([Promise.all(Array.from({ length: count }, read)), silence]);
    options.signal.throwIfAborted();
  } finally {
    options.signal.removeEventListener('abort', stop);
    over.abort();
  }
  return inWindow([{ ...all, counts: Array.from(all.counts, (bytes) => bytes ?? 0) }], from, to);
}

/** The same bytes for every post; a browser does not make them smaller. */
function noise(): ArrayBuffer {
  const bytes = new Uint8Array(MIB);
  for (let at = 0; at < MIB; at += 65_536) crypto.getRandomValues(bytes.subarray(at, at + 65_536));
  return bytes.buffer;
}

/** Sends so many bodies at once, one after the other, until the timed part is over; the server counts what comes. */
export async function upload(count: number, timedMs: number, options: RunOptions): Promise<Throughput> {
  const part = noise();
  const begin = performance.now();
  const last = begin + warmUp(timedMs) + timedMs;
  const send = async () => {
    const answers: Counted[] = [];
    let size = LEAST_UP;
    while (performance.now() < last || answers.length === 0) {
      const body = size <= MIB ? new Blob([part.slice(0, size)]) : new Blob(new Array<ArrayBuffer>(size / MIB).fill(part));
      const start = performance.now();
      const answer = await ask(options, 'network/up', { method: 'POST', body, headers: { 'Content-Type': 'application/octet-stream' } });
      answers.push((await answer.json()) as Counted);
      if (performance.now() - start < timedMs * POST_SHARE) size = Math.min(MOST, GROWS * size);
    }
    return answers;
  };
  const streams = await Promise.all(Array.from({ length: count }, send));
  const end = (counted: Counted) => counted.firstMs + counted.counts.length * counted.stepMs;
  const from = Math.max(...streams.map((answers) => answers[0]!.firstMs));
  const to = Math.min(...streams.map((answers) => end(answers[answers.length - 1]!)));
  const warm = Math.min(warmUp(timedMs), Math.max(0, to - from - STEP_MS));
  return inWindow(streams.flat(), from + warm, to);
}
