import type { Obstacle, Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import { onDisplay } from './display.ts';
import { SIZES } from './gl.ts';
import script from './graphics.worker.ts?worker&url';
import { SCENES } from './scenes.ts';

function obstacle(offScreen: boolean): Obstacle | null {
  let able = false;
  try {
    const canvas = offScreen ? new OffscreenCanvas(1, 1) : document.createElement('canvas');
    const gl = canvas.getContext('webgl2') as WebGL2RenderingContext | null;
    able = gl !== null;
    // Browsers keep only a few of these at a time.
    gl?.getExtension('WEBGL_lose_context')?.loseContext();
  } catch {
    // Some browsers have the name but not this kind of context.
  }
  return able ? null : { reason: 'NOT_SUPPORTED', words: offScreen ? 'This browser has no WebGL 2 away from the page.' : 'This browser has no WebGL 2.' };
}

/** Scenes of a fixed size whatever the display is, and one that finds the display's limit. */
export function graphicsWorkload(key: string): Workload | null {
  if (key === 'graphics-display') return { key, assets: [], obstacle: () => obstacle(false), run: onDisplay };
  const [, scene, size] = /^graphics-(.+)-(\d+)$/.exec(key) ?? [];
  if (!scene || !size || !Object.hasOwn(SCENES, scene) || !Object.hasOwn(SIZES, size)) return null;
  return {
    key,
    assets: [script],
    obstacle: () => obstacle(true),
    run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { scene, size: SIZES[size] }),
  };
}
