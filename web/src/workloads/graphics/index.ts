import { endure } from '../endure.ts';
import { measure } from '../measure.ts';
import { breathe } from '../page/frame.ts';
import type { Measurement, Obstacle, RunOptions, Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import { onDisplay } from './display.ts';
import { CONTEXT, drawn } from './draw.ts';
import { SIZES, type Size } from './gl.ts';
import script from './graphics.worker.ts?worker&url';
import { SCENES } from './scenes.ts';

function able(canvas: () => OffscreenCanvas | HTMLCanvasElement): boolean {
  try {
    const gl = canvas().getContext('webgl2') as WebGL2RenderingContext | null;
    // Browsers keep only a few of these at a time.
    gl?.getExtension('WEBGL_lose_context')?.loseContext();
    return gl !== null;
  } catch {
    // Some browsers have the name but not this kind of context.
    return false;
  }
}

const offScreen = () => able(() => new OffscreenCanvas(1, 1));

function obstacle(): Obstacle | null {
  return able(() => document.createElement('canvas')) ? null : { reason: 'NOT_SUPPORTED', words: 'This browser has no WebGL 2.' };
}

/** The same scene, drawn by the page where workers have no such context: off screen too, so that no display holds it up. */
async function inPage(options: RunOptions, what: { scene: string; size: Size }): Promise<Measurement> {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 16;
  const gl = canvas.getContext('webgl2', CONTEXT);
  if (!gl) throw new Error('This browser has no WebGL 2.');
  try {
    const measured = await drawn(gl, what, {
      timedMs: options.timedMs,
      clockResolutionMs: options.clockResolutionMs,
      now: () => performance.now(),
      take: options.endure ? endure : measure,
      between: async () => {
        await breathe();
        options.signal.throwIfAborted();
      },
    });
    return { ...measured, note: 'Drawn by the page itself: this browser has no WebGL 2 in workers.' };
  } finally {
    gl.getExtension('WEBGL_lose_context')?.loseContext();
  }
}

/** Scenes of a fixed size whatever the display is, and one that finds the display's limit. */
export function graphicsWorkload(key: string): Workload | null {
  if (key === 'graphics-display') return { key, assets: [], obstacle, run: onDisplay };
  const [, scene, size] = /^graphics-(.+)-(\d+)$/.exec(key) ?? [];
  if (!scene || !size || !Object.hasOwn(SCENES, scene) || !Object.hasOwn(SIZES, size)) return null;
  const what = { scene, size: SIZES[size]! };
  return {
    key,
    assets: [script],
    obstacle,
    run: (options) => (offScreen() ? runInWorker(new Worker(script, { type: 'module' }), options, what) : inPage(options, what)),
  };
}
