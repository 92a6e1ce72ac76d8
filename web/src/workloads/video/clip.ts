import { drawFrame } from './pattern.ts';
import { CODECS, type Codec, type Step } from './steps.ts';

/** An encoded clip: its pieces, in order. */
export interface Clip {
  step: Step;
  chunks: EncodedVideoChunk[];
  config: VideoDecoderConfig;
  /** Frames a second while encoding. */
  encodeFps: number;
}

export const bitsPerSecond = ({ width, height, fps }: Step) => Math.round(width * height * fps * 0.07);

export async function canEncode(codec: Codec, step: Step): Promise<boolean> {
  if (typeof VideoEncoder !== 'function') return false;
  return (await VideoEncoder.isConfigSupported(configOf(codec, step)).catch(() => ({ supported: false }))).supported === true;
}

function configOf(codec: Codec, { width, height, fps }: Step): VideoEncoderConfig {
  return { codec: CODECS[codec].ask, width, height, framerate: fps, bitrate: bitsPerSecond({ width, height, fps }), latencyMode: 'quality', ...(codec === 'h264' && { avc: { format: 'annexb' as const } }) };
}

const timesOf = (step: Step, i: number) => ({ timestamp: Math.round((i * 1e6) / step.fps), duration: Math.round(1e6 / step.fps) });

/** Draws frame after frame of the pattern. */
function drawing(step: Step): (i: number) => VideoFrame {
  const canvas = new OffscreenCanvas(step.width, step.height);
  const context = canvas.getContext('2d')!;
  return (i) => {
    drawFrame(context, step, i);
    return new VideoFrame(canvas, timesOf(step, i));
  };
}

/** The first frames, drawn once and shown there and back again, so that there is always motion and nothing left to draw. */
export function ring(step: Step): { picture: (i: number) => VideoFrame; close: () => void } {
  const draw = drawing(step);
  const drawn = Array.from({ length: RING }, (_, i) => draw(i));
  return {
    picture: (i) => {
      const at = i % (2 * RING - 2);
      return new VideoFrame(drawn[at < RING ? at : 2 * RING - 2 - at]!, timesOf(step, i));
    },
    close: () => drawn.forEach((frame) => frame.close()),
  };
}

/** Encodes a clip on this device. Only the encoder is timed: frames are made before, a few at a time. @param seen is told after the first few how long one takes, drawing and all */
export async function makeClip(codec: Codec, step: Step, frames: number, signal: AbortSignal, picture = drawing(step), seen?: (msPerFrame: number) => void): Promise<Clip> {
  const chunks: EncodedVideoChunk[] = [];
  let config: VideoDecoderConfig | undefined;
  let failure: Error | undefined;
  const encoder = new VideoEncoder({
    output(chunk, more) {
      chunks.push(chunk);
      if (more?.decoderConfig) config = more.decoderConfig;
    },
    error: (error) => (failure = error),
  });
  encoder.configure(configOf(codec, step));
  let encoding = 0;
  try {
    for (let frame = 0; frame < frames; frame += BATCH) {
      signal.throwIfAborted();
      const begin = performance.now();
      const drawn: VideoFrame[] = [];
      for (let i = frame; i < Math.min(frames, frame + BATCH); i++) drawn.push(picture(i));
      const start = performance.now();
      drawn.forEach((one, i) => {
        encoder.encode(one, { keyFrame: (frame + i) % 60 === 0 });
        one.close();
      });
      await emptied(encoder);
      encoding += performance.now() - start;
      if (failure) throw failure;
      if (frame === 0) seen?.((performance.now() - begin) / drawn.length);
    }
    const start = performance.now();
    await encoder.flush();
    encoding += performance.now() - start;
  } finally {
    if (encoder.state !== 'closed') encoder.close();
  }
  if (failure) throw failure;
  if (chunks.length !== frames || !config) throw new Error(`The encoder gave ${chunks.length} of ${frames} frames.`);
  return { step, chunks, config, encodeFps: (frames * 1000) / encoding };
}

const BATCH = 8;
/** Frames kept at once: 16 of 720p are 59 MB. */
const RING = 16;

/** Waits until the encoder has taken everything, so that drawing does not run beside it. */
function emptied(encoder: VideoEncoder): Promise<void> {
  if (encoder.encodeQueueSize === 0 || encoder.state === 'closed') return Promise.resolve();
  return new Promise((resolve) => {
    const look = () => {
      if (encoder.encodeQueueSize > 0 && encoder.state !== 'closed') return;
      encoder.removeEventListener('dequeue', look);
      resolve();
    };
    encoder.addEventListener('dequeue', look);
    look();
  });
}
