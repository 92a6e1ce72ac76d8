import { serveMeasurement } from '../worker-run.ts';
import { CONTEXT, drawn } from './draw.ts';
import type { Size } from './gl.ts';

serveMeasurement<{ scene: string; size: Size; probe?: boolean }>(async (what, options) => {
  const gl = new OffscreenCanvas(16, 16).getContext('webgl2', CONTEXT);
  if (!gl) throw new Error('This browser has no WebGL 2 away from the page.');
  return drawn(gl, what, options);
});
