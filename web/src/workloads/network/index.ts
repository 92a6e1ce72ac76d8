import { median } from '../measure.ts';
import { pause } from '../pause.ts';
import type { Measurement, Obstacle, RunOptions, Workload } from '../types.ts';
import { keepAsking, openEcho } from './echo.ts';
import { jitter, nearLimit, percentile } from './numbers.ts';
import { download, upload } from './streams.ts';
import { inTurn, type Turn } from './turn.ts';
import { HOLD_MS, walk } from './walk.ts';

const MANY = 6;
const FEWEST_ANSWERS = 100;
/** As many samples as a run may have. */
const MOST_ANSWERS = 5_000;
const FEWEST_CONNECTIONS = 5;
const BETWEEN_CONNECTIONS_MS = 10;
const BETWEEN_LOADED_MS = 50;
const WARM_UP_ANSWERS = 10;
/** A slow way gives fewer answers than wanted in this many times the timed part. */
const MOST_TIMES = 5;
const limitMs = (timedMs: number) => 60_000 + 10 * timedMs;

type Direction = 'download' | 'upload';

/** What the browser says of the link, whether there is one, and what the server can give at most. */
function linkWords(turn: Turn): string {
  const most = turn.limitMbit === undefined ? '' : ` The server gives at most ${turn.limitMbit.toFixed(0)} Mbit/s.`;
  return `${linkAlone(turn.here)}${most}`;
}

function linkAlone(here: boolean): string {
  if (here) return 'This device is the server itself: nothing lies between.';
  const { connection } = navigator as { connection?: { type?: string; downlink?: number; effectiveType?: string } };
  if (!connection) return 'The browser says nothing of the link.';
  const words = [connection.type, connection.downlink !== undefined && `about ${connection.downlink} Mbit/s down`, connection.effectiveType && `as fast as ${connection.effectiveType}`];
  return `The browser says of the link: ${words.filter(Boolean).join(', ')}.`;
}

async function latency(options: RunOptions, turn: Turn): Promise<Measurement> {
  const echo = await openEcho(turn.ticket, options.signal);
  try {
    for (let i = 0; i < WARM_UP_ANSWERS; i++) await echo.there();
    const times: number[] = [];
    const begin = performance.now();
    const took = () => performance.now() - begin;
    while ((took() < options.timedMs && times.length < MOST_ANSWERS) || (times.length < FEWEST_ANSWERS && took() < MOST_TIMES * options.timedMs) || times.length < 2) {
      times.push(await echo.there());
      options.signal.throwIfAborted();
    }
    const resolution = options.clockResolutionMs;
    return {
      rate: median(times),
      samples: times.map((t) => Math.max(t, resolution, 0.001)),
      resolution,
      timedMs: took(),
      note: linkWords(turn),
      more: [
        { metric: 'p95', value: percentile(times, 95), resolution },
        { metric: 'p99', value: percentile(times, 99), resolution },
        { metric: 'jitter', value: Math.max(jitter(times), 0.001), resolution },
      ],
    };
  } finally {
    echo.close();
  }
}

async function connect(options: RunOptions, turn: Turn): Promise<Measurement> {
  const times: number[] = [];
  const begin = performance.now();
  // The first one may look names up and make keys that later ones have.
  for (let i = 0; performance.now() - begin < options.timedMs || times.length < FEWEST_CONNECTIONS; i++) {
    const start = performance.now();
    const echo = await openEcho(turn.ticket, options.signal);
    await echo.there();
    if (i > 0) times.push(performance.now() - start);
    echo.close();
    await pause(BETWEEN_CONNECTIONS_MS, options.signal);
  }
  return { rate: median(times), samples: times, resolution: options.clockResolutionMs, timedMs: performance.now() - begin, note: linkWords(turn) };
}

async function throughput(direction: Direction, count: number, options: RunOptions, turn: Turn): Promise<Measurement> {
  const load = direction === 'download' ? download : upload;
  const times: number[] = [];
  const done = new AbortController();
  const echo = count > 1 ? await openEcho(turn.ticket, options.signal) : null;
  try {
    const asking = echo && keepAsking(echo, BETWEEN_LOADED_MS, times, done.signal);
    const { rate, samples, timedMs } = await load(count, options.timedMs, options);
    done.abort();
    await asking;
    const resolution = options.clockResolutionMs;
    return {
      rate,
      samples,
      resolution: (rate * resolution) / timedMs,
      timedMs,
      note: linkWords(turn),
      disturbed: nearLimit(rate, turn),
      ...(times.length > 0 && {
        more: [
          { metric: 'loaded', value: Math.max(median(times), 0.001), resolution },
          { metric: 'loaded-p95', value: Math.max(percentile(times, 95), 0.001), resolution },
        ],
      }),
    };
  } finally {
    done.abort();
    echo?.close();
  }
}

/** Each step has a turn of its own: while somebody walks, others measure. */
function walked(options: RunOptions): Promise<Measurement> {
  const { ask } = options;
  if (!ask) throw new Error('Nobody can be asked to walk here.');
  // As long as the suite says, unless a plan wants its runs shorter than they are by themselves.
  const holdMs = Math.min(HOLD_MS, 15 * options.timedMs);
  const words: string[] = [];
  return walk(
    (question) => {
      options.more?.(3_600_000);
      return ask(question);
    },
    () =>
      inTurn(options, limitMs(holdMs), async (turn) => {
        words[0] = linkWords(turn);
        return download(1, holdMs, options);
      }),
  ).then((measured) => ({ ...measured, note: [measured.note, holdMs < HOLD_MS && `Each step was held for ${(holdMs / 1000).toFixed(0)} s only.`, ...words].filter(Boolean).join(' ') }));
}

const TESTS: Record<string, (options: RunOptions) => Promise<Measurement>> = {
  latency: (options) => inTurn(options, limitMs(options.timedMs), (turn) => latency(options, turn)),
  connect: (options) => inTurn(options, limitMs(options.timedMs), (turn) => connect(options, turn)),
  walk: walked,
};
for (const direction of ['download', 'upload'] as const) {
  TESTS[`${direction}-one`] = (options) => inTurn(options, limitMs(options.timedMs), (turn) => throughput(direction, 1, options, turn));
  TESTS[`${direction}-six`] = (options) => inTurn(options, limitMs(options.timedMs), (turn) => throughput(direction, MANY, options, turn));
}

function obstacle(): Obstacle | null {
  if (typeof WebSocket !== 'function') return { reason: 'NOT_SUPPORTED', words: 'This browser has no WebSocket.' };
  if (typeof ReadableStream !== 'function') return { reason: 'NOT_SUPPORTED', words: 'This browser gives no answer before it has the whole of it.' };
  return null;
}

/** Between this device and the server, over whatever lies between. */
export function networkWorkload(key: string): Workload | null {
  const name = key.slice('network-'.length);
  const run = Object.hasOwn(TESTS, name) ? TESTS[name] : undefined;
  return run ? { key, assets: [], obstacle, run } : null;
}
