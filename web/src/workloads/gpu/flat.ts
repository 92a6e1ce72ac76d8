import { LICHEN_SIDE, LICHENS, lichenPixels } from '../graphics/matter.ts';
import { CELLS } from '../graphics/reeds.ts';
import { bound, pass, pipeline, surface, uniforms, WHOLE, type GpuScene, type Surface } from './surface.ts';

/** Scenes that are all picture and no bodies: the same as in graphics/scenes.ts, whose pictures they are held against. */

const DARK = [0, 0, 0, 1];

/** Mist in layers: what a graphics processor can fill and blend. */
export function mist(at: Surface): GpuScene {
  const over: GPUBlendComponent = { srcFactor: 'src-alpha', dstFactor: 'one-minus-src-alpha' };
  const line = pipeline(at.device, `${WHOLE}
    @group(0) @binding(0) var<uniform> moment: vec4f;
    @fragment fn shade(v: Whole) -> @location(0) vec4f {
      let layer = f32(v.layer);
      let d = distance(v.at, vec2f(0.5 + 0.4 * sin(layer + moment.x), 0.5 + 0.4 * cos(layer * 1.7)));
      return vec4f(0.3 + 0.02 * layer, 0.5, 0.7 - 0.02 * layer, 0.12 * (1.0 - smoothstep(0.1, 0.9, d)));
    }`, { vertex: 'whole', fragment: 'shade', blend: { color: over, alpha: over } });
  const { held, set } = uniforms(at.device, 4);
  const group = bound(at.device, line, [{ buffer: held }]);
  return (moment, encoder) => {
    set([moment]);
    const drawing = pass(encoder, at, [0.1, 0.12, 0.14, 1], false);
    drawing.setPipeline(line);
    drawing.setBindGroup(0, group);
    for (let layer = 0; layer < 24; layer++) drawing.draw(3, 1, 0, layer);
    drawing.end();
  };
}

/** The next smaller size of a picture: each pixel the mean of four. */
function halved(pixels: Uint8Array, side: number): Uint8Array<ArrayBuffer> {
  const half = side / 2;
  const out = new Uint8Array(half * half * 4);
  for (let r = 0; r < half; r++) {
    for (let c = 0; c < half; c++) {
      for (let part = 0; part < 4; part++) {
        const from = (2 * r * side + 2 * c) * 4 + part;
        out[(r * half + c) * 4 + part] = (pixels[from]! + pixels[from + 4]! + pixels[from + side * 4]! + pixels[from + side * 4 + 4]! + 2) >> 2;
      }
    }
  }
  return out;
}

/** Lichen: many lookups in textures with all their sizes. */
export function lichen(at: Surface): GpuScene {
  const { device } = at;
  const levels = Math.log2(LICHEN_SIDE) + 1;
  const textures = lichenPixels().map((first) => {
    const texture = device.createTexture({ size: [LICHEN_SIDE, LICHEN_SIDE], mipLevelCount: levels, format: 'rgba8unorm', usage: GPUTextureUsage.TEXTURE_BINDING | GPUTextureUsage.COPY_DST });
    let pixels = first;
    for (let level = 0, side = LICHEN_SIDE; level < levels; level++, side /= 2) {
      device.queue.writeTexture({ texture, mipLevel: level }, pixels, { bytesPerRow: side * 4 }, [side, side]);
      if (side > 1) pixels = halved(pixels, side);
    }
    return texture.createView();
  });
  const line = pipeline(device, `${WHOLE}
    @group(0) @binding(0) var<uniform> moment: vec4f; @group(0) @binding(1) var near: sampler;
    ${Array.from({ length: LICHENS }, (_, n) => `@group(0) @binding(${n + 2}) var t${n}: texture_2d<f32>;`).join(' ')}
    @fragment fn shade(v: Whole) -> @location(0) vec4f {
      var sum = vec3f(0.0);
      for (var i = 0; i < 3; i++) {
        let p = v.at * (1.0 + f32(i) * 1.9) + 0.03 * moment.x;
        sum += textureSample(t0, near, p).rgb + textureSample(t1, near, p.yx * 1.3).rgb + textureSample(t2, near, p + textureSample(t3, near, p * 0.7).rg).rgb;
      }
      return vec4f(sum / 9.0, 1.0);
    }`, { vertex: 'whole', fragment: 'shade' });
  const { held, set } = uniforms(device, 4);
  const sampler = device.createSampler({ addressModeU: 'repeat', addressModeV: 'repeat', magFilter: 'linear', minFilter: 'linear', mipmapFilter: 'linear' });
  const group = bound(device, line, [{ buffer: held }, sampler, ...textures]);
  return (moment, encoder) => {
    set([moment]);
    const drawing = pass(encoder, at, DARK, false);
    drawing.setPipeline(line);
    drawing.setBindGroup(0, group);
    drawing.draw(3);
    drawing.end();
  };
}

/** The reed bed: each pixel walks through a field of reeds until it meets one. Nothing but arithmetic. */
export function reedBed(at: Surface): GpuScene {
  const line = pipeline(at.device, `${WHOLE}
    @group(0) @binding(0) var<uniform> given: vec4f;
    fn reeds(p: vec3f) -> f32 {
      let cell = floor(p.xz); let inside = fract(p.xz) - 0.5;
      let chance = fract(sin(dot(cell, vec2f(12.9898, 78.233))) * 437.5453);
      let sway = 0.12 * p.y * p.y * sin(given.x * 0.3 + cell.x * 0.7 + cell.y * 0.4);
      let lean = inside - vec2f(sway, 0.0) - 0.25 * (vec2f(chance, fract(chance * 17.0)) - 0.5);
      let high = 0.9 + 0.7 * chance;
      let stem = length(lean) - mix(0.07, 0.02, clamp(p.y / high, 0.0, 1.0));
      return max(stem, p.y - high);
    }
    @fragment fn shade(v: Whole) -> @location(0) vec4f {
      let p = (v.at * 2.0 - 1.0) * vec2f(given.y, 1.0);
      let origin = vec3f(0.0, 1.5, given.x * 0.1); let way = normalize(vec3f(p.x, p.y * 0.8 - 0.35, 1.3));
      var t = 0.0;
      for (var i = 0; i < 48; i++) {
        let here = origin + way * t;
        let d = min(reeds(here), here.y);
        if (d < 0.005 || t > 14.0) { break; }
        t += clamp(d * 0.7, 0.01, 0.3);
      }
      let end = origin + way * t;
      let reed = mix(vec3f(0.25, 0.3, 0.12), vec3f(0.75, 0.68, 0.4), clamp(end.y, 0.0, 1.0));
      let sky = mix(vec3f(0.85, 0.87, 0.84), vec3f(0.55, 0.68, 0.78), clamp(v.at.y, 0.0, 1.0));
      let base = select(reed, vec3f(0.2, 0.24, 0.2), end.y < 0.02);
      return vec4f(mix(base, sky, smoothstep(3.0, 14.0, t)), 1.0);
    }`, { vertex: 'whole', fragment: 'shade' });
  const { held, set } = uniforms(at.device, 4);
  const group = bound(at.device, line, [{ buffer: held }]);
  return (moment, encoder) => {
    set([moment, at.size.width / at.size.height]);
    const drawing = pass(encoder, at, DARK, false);
    drawing.setPipeline(line);
    drawing.setBindGroup(0, group);
    drawing.draw(3);
    drawing.end();
  };
}

/** What this processor takes for the reed of each cell, as a picture (graphics/reeds.ts). */
export function reedChances(device: GPUDevice): Surface {
  const at = surface(device, { width: CELLS.columns, height: CELLS.rows });
  const line = pipeline(device, `${WHOLE}
    @fragment fn shade(v: Whole) -> @location(0) vec4f {
      let cell = floor(v.at * vec2f(${CELLS.columns}.0, ${CELLS.rows}.0)) + vec2f(${CELLS.left}.0, 0.0);
      let chance = fract(sin(dot(cell, vec2f(12.9898, 78.233))) * 437.5453);
      return vec4f(floor(chance * 255.0) / 255.0, fract(chance * 255.0), 0.0, 1.0);
    }`, { vertex: 'whole', fragment: 'shade' });
  const encoder = device.createCommandEncoder();
  const drawing = pass(encoder, at, DARK, false);
  drawing.setPipeline(line);
  drawing.draw(3);
  drawing.end();
  device.queue.submit([encoder.finish()]);
  return at;
}
