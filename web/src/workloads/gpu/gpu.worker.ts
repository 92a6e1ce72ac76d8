/// <reference types="@webgpu/types" />
import type { Size } from '../graphics/gl.ts';
import { KNOWN, TOLERANCE } from '../graphics/known.ts';
import { farthest, fields } from '../graphics/picture.ts';
import { chanceIn, reedFields } from '../graphics/reeds.ts';
import { ContextLost, WrongAnswer } from '../types.ts';
import { serveMeasurement } from '../worker-run.ts';
import { lichen, mist, reedBed, reedChances } from './flat.ts';
import { dunes, herons, pebbles } from './solid.ts';
import { surface, type GpuScene, type Surface } from './surface.ts';

const SCENES: Record<string, (at: Surface) => GpuScene> = { mist, lichen, pebbles, 'reed-bed': reedBed, herons, dunes };
/** Rows of a copied picture begin at multiples of this many bytes. */
const ROW = 256;

serveMeasurement<{ scene: string; size: Size; probe?: boolean }>(async ({ scene: name, size, probe }, options) => {
  const adapter = await navigator.gpu?.requestAdapter({ powerPreference: 'high-performance' });
  if (!adapter) throw new Error('This browser has WebGPU, but nothing that draws with it.');
  const device = await adapter.requestDevice();
  let lost = '';
  void device.lost.then((info) => (lost = info.message || info.reason || 'no reason was given'));
  const whole = () => {
    if (lost) throw new ContextLost(`The graphics device was lost: ${lost}.`);
  };
  device.pushErrorScope('validation');
  const at = surface(device, size);
  const scene = SCENES[name]!(at);
  const pixel = device.createBuffer({ size: ROW, usage: GPUBufferUsage.COPY_DST | GPUBufferUsage.MAP_READ });
  const draw = (moment: number) => {
    const encoder = device.createCommandEncoder();
    scene(moment, encoder);
    device.queue.submit([encoder.finish()]);
  };
  let moment = 0;
  const result = await options.take(async (rounds) => {
    for (let i = 0; i < rounds; i++) draw((moment = (moment + 1) % 600));
    // Waits until everything is really drawn, not merely asked for: a pixel is read back.
    const encoder = device.createCommandEncoder();
    encoder.copyTextureToBuffer({ texture: at.picture }, { buffer: pixel, bytesPerRow: ROW }, [1, 1]);
    device.queue.submit([encoder.finish()]);
    await pixel.mapAsync(GPUMapMode.READ);
    pixel.unmap();
    whole();
  }, 1, { ...options, each: true });
  draw(0);
  const found = fields(await read(at), size.width, size.height);
  whole();
  const error = await device.popErrorScope();
  if (error) throw new Error(`The graphics interface reported: ${error.message}`);
  const known = KNOWN[name] ?? reedFields(chanceIn(await read(reedChances(device))));
  device.destroy();
  if (probe) return { ...result, samples: found };
  const off = farthest(found, known);
  if (off > TOLERANCE) throw new WrongAnswer(`The picture is off by ${off.toFixed(1)} of 255; at most ${TOLERANCE} is another way to round.`);
  return result;
});

/** The pixels of a picture, lowest row first. */
async function read({ device, picture, size: { width, height } }: Surface): Promise<Uint8Array> {
  const bytesPerRow = Math.ceil((width * 4) / ROW) * ROW;
  const copy = device.createBuffer({ size: bytesPerRow * height, usage: GPUBufferUsage.COPY_DST | GPUBufferUsage.MAP_READ });
  const encoder = device.createCommandEncoder();
  encoder.copyTextureToBuffer({ texture: picture }, { buffer: copy, bytesPerRow }, [width, height]);
  device.queue.submit([encoder.finish()]);
  await copy.mapAsync(GPUMapMode.READ);
  const rows = new Uint8Array(copy.getMappedRange());
  // Here the highest row is the first.
  const pixels = new Uint8Array(width * height * 4);
  for (let row = 0; row < height; row++) pixels.set(rows.subarray(row * bytesPerRow, row * bytesPerRow + width * 4), (height - 1 - row) * width * 4);
  copy.unmap();
  return pixels;
}
