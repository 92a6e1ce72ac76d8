import type { measure, MeasureOptions } from '../measure.ts';
import { ContextLost, WrongAnswer, type Measurement } from '../types.ts';
import { target, type Gl, type Size } from './gl.ts';
import { KNOWN, TOLERANCE } from './known.ts';
import { farthest, fields } from './picture.ts';
import { chances, reedFields } from './reeds.ts';
import { SCENES } from './scenes.ts';

export const CONTEXT: WebGLContextAttributes = { antialias: false, powerPreference: 'high-performance' };

/** Draws a scene into a target off screen, measures it, and looks at the picture. */
export async function drawn(gl: Gl, { scene: name, size, probe }: { scene: string; size: Size; probe?: boolean }, options: MeasureOptions & { take: typeof measure }): Promise<Measurement> {
  target(gl, size);
  gl.viewport(0, 0, size.width, size.height);
  const scene = SCENES[name]!(gl, size);
  const pixel = new Uint8Array(4);
  let moment = 0;
  const result = await options.take((rounds) => {
    for (let i = 0; i < rounds; i++) scene.draw((moment = (moment + 1) % 600));
    finish(gl, pixel);
  }, 1, { ...options, each: true });
  scene.draw(0);
  const found = look(gl, size);
  const error = gl.getError();
  if (gl.isContextLost()) throw new ContextLost('The graphics context was lost.');
  if (error !== gl.NO_ERROR) throw new Error(`The graphics interface reported error ${error}.`);
  if (probe) return { ...result, samples: found };
  const off = farthest(found, KNOWN[name] ?? reedFields(chances(gl)));
  if (off > TOLERANCE) throw new WrongAnswer(`The picture is off by ${off.toFixed(1)} of 255; at most ${TOLERANCE} is another way to round.`);
  return result;
}

/** Waits until everything is really drawn, not merely asked for: a fence, and a pixel that is read back. */
function finish(gl: Gl, pixel: Uint8Array): void {
  const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
  gl.flush();
  gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
  gl.deleteSync(fence);
  if (gl.isContextLost()) throw new ContextLost('The graphics context was lost.');
}

function look(gl: Gl, { width, height }: Size): number[] {
  const pixels = new Uint8Array(width * height * 4);
  gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
  return fields(pixels, width, height);
}
