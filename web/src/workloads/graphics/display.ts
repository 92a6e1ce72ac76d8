import { ContextLost, type Measurement, type RunOptions } from '../types.ts';
import { SCENES } from './scenes.ts';

const WIDTH = 640;
const HEIGHT = 360;
const FEWEST_FRAMES = 30;

/** One light scene on the display, as fast as it takes frames: finds the display's limit. */
export async function onDisplay(options: RunOptions): Promise<Measurement> {
  const canvas = document.createElement('canvas');
  canvas.width = WIDTH;
  canvas.height = HEIGHT;
  options.host.append(canvas);
  try {
    const gl = canvas.getContext('webgl2', { antialias: false });
    if (!gl) throw new Error('This browser has no WebGL 2 on a page.');
    const scene = SCENES.mist!(gl, canvas);
    gl.viewport(0, 0, WIDTH, HEIGHT);
    const frames: number[] = [];
    let before = 0;
    let moment = 0;
    let sum = 0;
    await new Promise<void>((resolve, reject) => {
      const frame = (now: number) => {
        if (options.signal.aborted) return reject(options.signal.reason);
        if (gl.isContextLost()) return reject(new ContextLost('The graphics context was lost.'));
        scene.draw(moment++);
        // The first frames come while the canvas is being put on the page.
        if (moment > 10 && before > 0 && now > before) {
          frames.push(now - before);
          sum += now - before;
        }
        before = now;
        if (sum >= options.timedMs && frames.length >= FEWEST_FRAMES) resolve();
        else requestAnimationFrame(frame);
      };
      requestAnimationFrame(frame);
    });
    return { rate: (1000 * frames.length) / sum, samples: frames, resolution: 0, timedMs: sum };
  } finally {
    canvas.remove();
  }
}
