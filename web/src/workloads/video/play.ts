import { WrongAnswer } from '../types.ts';
import type { Clip } from './clip.ts';
import type { Played } from './steps.ts';

/** Decoded frames that wait for their moment; more would take memory a phone does not have. */
const AHEAD = 8;
/** Times the display is asked for before a clip starts. */
const SETTLING = 20;

/**
 * Plays a clip by the clock: each frame is decoded and drawn full size by the moment it is due. A frame that is not
 * decoded when the next one is due is dropped; one that is shown later than its own moment by more than a frame is late.
 */
export async function playClip(clip: Clip, host: HTMLElement, signal: AbortSignal): Promise<Played> {
  const canvas = document.createElement('canvas');
  canvas.width = clip.step.width;
  canvas.height = clip.step.height;
  canvas.style.width = '100%';
  host.append(canvas);
  const context = canvas.getContext('2d', { alpha: false })!;
  const ready: VideoFrame[] = [];
  let failure: Error | undefined;
  let decoded = 0;
  const decoder = new VideoDecoder({
    output(frame) {
      decoded++;
      ready.push(frame);
    },
    error: (error) => (failure = error),
  });
  const frameMs = 1000 / clip.step.fps;
  let [sent, shown, dropped, late] = [0, 0, 0, 0];
  const feed = () => {
    while (sent < clip.chunks.length && ready.length + decoder.decodeQueueSize < AHEAD) decoder.decode(clip.chunks[sent++]!);
    if (sent === clip.chunks.length && decoder.state === 'configured') void decoder.flush().catch(() => {});
  };
  try {
    decoder.configure(clip.config);
    feed();
    await new Promise<void>((resolve, reject) => {
      let start = 0;
      let ticks = 0;
      const tick = (now: number) => {
        if (signal.aborted) return reject(signal.reason);
        if (failure) return reject(failure);
        // Time runs once the first frames are there and the page has settled: encoding has only just ended.
        ticks++;
        if (start === 0 && ticks > SETTLING && (ready.length >= AHEAD || decoded === clip.chunks.length)) start = now;
        const due = start === 0 ? -1 : Math.floor((now - start) / frameMs);
        let next: VideoFrame | undefined;
        while (ready.length > 0 && indexOf(ready[0]!, frameMs) <= due) {
          if (next) {
            next.close();
            dropped++;
          }
          next = ready.shift();
        }
        if (next) {
          if (due - indexOf(next, frameMs) > 1) late++;
          context.drawImage(next, 0, 0);
          next.close();
          shown++;
        }
        if (sent < clip.chunks.length || decoder.decodeQueueSize > 0 || ready.length > 0 || shown + dropped < clip.chunks.length) {
          if (sent < clip.chunks.length) feed();
          requestAnimationFrame(tick);
        } else resolve();
      };
      requestAnimationFrame(tick);
    });
    if (decoded !== clip.chunks.length) throw new WrongAnswer(`${decoded} of ${clip.chunks.length} frames came out of the decoder.`);
    return { frames: clip.chunks.length, dropped, late };
  } finally {
    ready.forEach((frame) => frame.close());
    if (decoder.state !== 'closed') decoder.close();
    canvas.remove();
  }
}

const indexOf = (frame: VideoFrame, frameMs: number) => Math.round(frame.timestamp / 1000 / frameMs);
