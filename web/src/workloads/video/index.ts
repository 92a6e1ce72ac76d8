import type { Measurement, Obstacle, RunOptions, Workload } from '../types.ts';
import { canEncode, makeClip, ring } from './clip.ts';
import { playClip } from './play.ts';
import { climb, CODECS, named, STEPS, type Codec } from './steps.ts';

/** Frames to encode where only that is measured, at 720p. */
const ENCODE_STEP = STEPS.find((s) => s.height === 720 && s.fps === 30)!;
const FEWEST_FRAMES = 30;
/** Time for climbing, beside what the plan gives. A run ends at twice as much. */
const CLIMB_MS = 30_000;

async function obstacle(codec: Codec): Promise<Obstacle | null> {
  if (!isSecureContext) return { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection: only then do browsers encode and decode for a page.' };
  if (typeof VideoEncoder !== 'function' || typeof VideoDecoder !== 'function' || typeof OffscreenCanvas !== 'function') return { reason: 'NOT_SUPPORTED', words: 'This browser does not let a page encode and decode video.' };
  return (await canEncode(codec, STEPS[0]!)) ? null : { reason: 'NOT_SUPPORTED', words: `Can't encode ${CODECS[codec].name} here.` };
}

/** A clip would be made long after the time for climbing is over. */
class Late extends Error {}

/** Frames a second that the encoder takes. */
async function encodeSpeed(codec: Codec, options: RunOptions): Promise<Measurement> {
  const { picture, close } = ring(ENCODE_STEP);
  const samples: number[] = [];
  let frames = FEWEST_FRAMES;
  let timedMs = 0;
  try {
    // A first short clip loads the encoder, and says how many frames fill the time.
    const first = await makeClip(codec, ENCODE_STEP, frames, options.signal, picture, (ms) => options.takes?.(ms * 6 * frames));
    frames = Math.max(frames, Math.min(1200, Math.round((first.encodeFps * options.timedMs) / 5000)));
    options.takes?.((5000 * frames) / first.encodeFps);
    for (let part = 0; part < 5; part++) {
      const { encodeFps } = await makeClip(codec, ENCODE_STEP, frames, options.signal, picture);
      samples.push(encodeFps);
      timedMs += (frames * 1000) / encodeFps;
    }
  } finally {
    close();
  }
  const sorted = [...samples].sort((a, b) => a - b);
  const rate = sorted[2]!;
  return { rate, samples, resolution: (rate * rate * options.clockResolutionMs) / (frames * 1000), timedMs };
}

/** The highest step of the ladder that plays without dropping 1 %. */
async function highest(codec: Codec, options: RunOptions): Promise<Measurement> {
  let timedMs = 0;
  let outOfTime = false;
  const until = performance.now() + CLIMB_MS + 5 * options.timedMs;
  const { position, tried } = await climb(STEPS, async (step) => {
    // Heavy clips take long to make. What was climbed until then is a result; a run that is cut off is none.
    if ((outOfTime = performance.now() > until)) return null;
    if (!(await canEncode(codec, step))) return null;
    // Long enough that one frame of it is less than 1 %.
    const frames = Math.max(101, Math.round((step.fps * options.timedMs) / 1000));
    const clip = await makeClip(codec, step, frames, options.signal, undefined, (ms) => {
      const late = performance.now() + ms * frames - until;
      // The first clip is given the time that it takes, so that there is a result at all; a later one is not.
      if (step === STEPS[0]) options.takes?.(ms * frames + CLIMB_MS);
      else if (late > CLIMB_MS / 2) throw new Late();
    }).catch((error: unknown) => {
      if (error instanceof Late) return null;
      throw error;
    });
    if (clip === null) {
      outOfTime = true;
      return null;
    }
    const start = performance.now();
    const played = await playClip(clip, options.host, options.signal);
    timedMs += performance.now() - start;
    return played;
  });
  const last = tried.at(-1)!;
  const words = outOfTime ? 'was not tried: making the clips took too long' : !last.played ? `can't be encoded here` : `dropped ${last.played.dropped} and was late with ${last.played.late} of ${last.played.frames}`;
  if (position === 0) throw new Error(`Not even ${named(STEPS[0]!)} plays here: it ${words}.`);
  return { rate: position, samples: [], resolution: 1, timedMs, note: position === STEPS.length ? undefined : `${named(last.step)} ${words}.` };
}

/** Clips made and played on the device itself. */
export function videoWorkload(key: string): Workload | null {
  const [, kind, codec] = /^video-(play|encode)-(\w+)$/.exec(key) ?? [];
  if (!codec || !Object.hasOwn(CODECS, codec)) return null;
  const of = codec as Codec;
  return { key, assets: [], obstacle: () => obstacle(of), run: (options) => (kind === 'play' ? highest(of, options) : encodeSpeed(of, options)) };
}
