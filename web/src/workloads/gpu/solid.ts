import { view } from '../graphics/gl.ts';
import { BIRDS, dunesGround, flightAtFirst, SHADOW_SIDE, STONES, stoneCorners, stonePlaces } from '../graphics/matter.ts';
import { bound, buffer, DEPTH, pass, pipeline, SEEN, uniforms, type GpuScene, type Surface } from './surface.ts';

/** Scenes of bodies: the same as in graphics/scenes.ts, whose pictures they are held against. */

/** Pebbles: one small stone, drawn thousands of times, each with its place, turn and colour. */
export function pebbles(at: Surface): GpuScene {
  const { device, size } = at;
  const corners = stoneCorners();
  const line = pipeline(device, `${SEEN}
    struct Given { view: mat4x4f, moment: vec4f }
    struct Stone { @builtin(position) position: vec4f, @location(0) colour: vec3f }
    @group(0) @binding(0) var<uniform> given: Given;
    @vertex fn place(@location(0) corner: vec3f, @location(1) place: vec4f, @location(2) tint: f32) -> Stone {
      let a = tint * 6.28 + given.moment.x; let p = vec3f(corner.x * cos(a) - corner.z * sin(a), corner.y * 0.6, corner.x * sin(a) + corner.z * cos(a));
      let light = 0.35 + 0.65 * max(0.0, dot(normalize(p), normalize(vec3f(0.4, 0.8, 0.3))));
      return Stone(seen(given.view, p * place.w + place.xyz), mix(vec3f(0.55, 0.5, 0.42), vec3f(0.35, 0.42, 0.45), tint) * light);
    }
    @fragment fn shade(v: Stone) -> @location(0) vec4f { return vec4f(v.colour, 1.0); }`, {
    vertex: 'place', fragment: 'shade', depth: true,
    buffers: [
      { arrayStride: 12, attributes: [{ shaderLocation: 0, offset: 0, format: 'float32x3' }] },
      { arrayStride: 20, stepMode: 'instance', attributes: [{ shaderLocation: 1, offset: 0, format: 'float32x4' }, { shaderLocation: 2, offset: 16, format: 'float32' }] },
    ],
  });
  const [shape, places] = [buffer(device, corners, GPUBufferUsage.VERTEX), buffer(device, stonePlaces(), GPUBufferUsage.VERTEX)];
  const { held, set } = uniforms(device, 20);
  const group = bound(device, line, [{ buffer: held }]);
  return (moment, encoder) => {
    set([...view(size.width / size.height, 0.3 + 0.01 * moment, 6, 12), moment]);
    const drawing = pass(encoder, at, [0.62, 0.66, 0.68, 1], true);
    drawing.setPipeline(line);
    drawing.setBindGroup(0, group);
    drawing.setVertexBuffer(0, shape);
    drawing.setVertexBuffer(1, places);
    drawing.draw(corners.length / 3, STONES);
    drawing.end();
  };
}

/** Herons: a flight whose every bird is moved by a compute shader from where it was, and then drawn. */
export function herons(at: Surface): GpuScene {
  const { device, size } = at;
  const first = flightAtFirst();
  const flights = [0, 1].map(() => buffer(device, first, GPUBufferUsage.STORAGE | GPUBufferUsage.VERTEX));
  const move = device.createComputePipeline({ layout: 'auto', compute: { entryPoint: 'fly', module: device.createShaderModule({ code: `
    @group(0) @binding(0) var<storage, read> before: array<f32>; @group(0) @binding(1) var<storage, read_write> after: array<f32>;
    @compute @workgroup_size(64) fn fly(@builtin(global_invocation_id) id: vec3u) {
      if (id.x >= ${BIRDS}u) { return; }
      let i = id.x * 6u;
      let place = vec3f(before[i], before[i + 1], before[i + 2]); var speed = vec3f(before[i + 3], before[i + 4], before[i + 5]);
      let home = -place / (0.6 + dot(place.xz, place.xz)); let wind = vec3f(sin(place.y * 2.0), 0.3 * sin(place.x), cos(place.y * 2.0)) * 0.3;
      speed += (home * 1.4 + wind + vec3f(0.0, -place.y * 0.5, 0.0)) * 0.02;
      speed *= min(1.0, 1.6 / max(length(speed), 0.001));
      let next = place + speed * 0.02;
      after[i] = next.x; after[i + 1] = next.y; after[i + 2] = next.z; after[i + 3] = speed.x; after[i + 4] = speed.y; after[i + 5] = speed.z;
    }` }) } });
  const show = pipeline(device, `${SEEN}
    struct Given { view: mat4x4f, size: vec4f }
    struct Bird { @builtin(position) position: vec4f, @location(0) lift: f32, @location(1) p: vec2f }
    @group(0) @binding(0) var<uniform> given: Given;
    @vertex fn place(@builtin(vertex_index) vertex: u32, @location(0) place: vec3f, @location(1) speed: vec3f) -> Bird {
      let corner = vec2f(f32(vertex & 1) * 2.0 - 1.0, f32(vertex >> 1) * 2.0 - 1.0);
      var position = seen(given.view, place);
      let points = max(1.0, given.size.x / position.w);
      position += vec4f(corner * points / given.size.yz * position.w, 0.0, 0.0);
      return Bird(position, 0.5 + 0.5 * normalize(speed).x, vec2f(corner.x, -corner.y));
    }
    @fragment fn shade(v: Bird) -> @location(0) vec4f {
      if (abs(v.p.y - 0.3 * abs(v.p.x)) > 0.45) { discard; }
      return vec4f(mix(vec3f(0.25, 0.28, 0.32), vec3f(0.92, 0.92, 0.9), v.lift), 1.0);
    }`, {
    vertex: 'place', fragment: 'shade', depth: true, topology: 'triangle-strip',
    buffers: [{ arrayStride: 24, stepMode: 'instance', attributes: [{ shaderLocation: 0, offset: 0, format: 'float32x3' }, { shaderLocation: 1, offset: 12, format: 'float32x3' }] }],
  });
  const steps = [0, 1].map((now) => bound(device, move, [{ buffer: flights[now]! }, { buffer: flights[1 - now]! }]));
  const { held, set } = uniforms(device, 20);
  const group = bound(device, show, [{ buffer: held }]);
  set([...view(size.width / size.height, 0.7, 3, 9), size.height / 14, size.width, size.height]);
  let now = 0;
  return (moment, encoder) => {
    if (moment === 0) {
      // The first moment is always the same, however long the flight has been.
      now = 0;
      device.queue.writeBuffer(flights[0]!, 0, first);
    }
    const moving = encoder.beginComputePass();
    moving.setPipeline(move);
    for (let i = 0; i < 4; i++) {
      moving.setBindGroup(0, steps[now]!);
      moving.dispatchWorkgroups(Math.ceil(BIRDS / 64));
      now = 1 - now;
    }
    moving.end();
    const drawing = pass(encoder, at, [0.7, 0.76, 0.8, 1], true);
    drawing.setPipeline(show);
    drawing.setBindGroup(0, group);
    drawing.setVertexBuffer(0, flights[now]!);
    drawing.draw(4, BIRDS);
    drawing.end();
  };
}

/** Dunes: ground of many triangles that throws shadows on itself; the ground is drawn twice, once from the sun. */
export function dunes(at: Surface): GpuScene {
  const { device, size } = at;
  const { ground, index } = dunesGround();
  const [points, corners] = [buffer(device, ground, GPUBufferUsage.VERTEX), buffer(device, index, GPUBufferUsage.INDEX)];
  const layout: GPUVertexBufferLayout[] = [{ arrayStride: 12, attributes: [{ shaderLocation: 0, offset: 0, format: 'float32x3' }] }];
  const SUN = `${SEEN}
    struct Given { view: mat4x4f, turn: vec4f }
    @group(0) @binding(0) var<uniform> given: Given;
    fn fromSun(p: vec3f) -> vec3f {
      let z = normalize(vec3f(sin(given.turn.x), 0.55, cos(given.turn.x))); let x = normalize(vec3f(z.z, 0.0, -z.x)); let y = cross(z, x);
      return vec3f(dot(p, x) / 9.0, dot(p, y) / 9.0, 0.5 - 0.5 * dot(p, z) / 12.0);
    }`;
  const sunLine = pipeline(device, `${SUN} @vertex fn place(@location(0) place: vec3f) -> @builtin(position) vec4f { return vec4f(fromSun(place), 1.0); }`, { vertex: 'place', depth: true, buffers: layout });
  const line = pipeline(device, `${SUN}
    struct Point { @builtin(position) position: vec4f, @location(0) lit: vec3f, @location(1) world: vec3f }
    @group(0) @binding(1) var shadow: texture_depth_2d; @group(0) @binding(2) var compared: sampler_comparison;
    @vertex fn place(@location(0) place: vec3f) -> Point {
      let sun = fromSun(place);
      return Point(seen(given.view, place), vec3f(0.5 + 0.5 * sun.x, 0.5 - 0.5 * sun.y, sun.z), place);
    }
    @fragment fn shade(v: Point) -> @location(0) vec4f {
      var normal = normalize(cross(dpdx(v.world), dpdy(v.world)));
      if (normal.y < 0.0) { normal = -normal; }
      var sun = 0.0;
      for (var i = 0; i < 9; i++) { sun += textureSampleCompare(shadow, compared, v.lit.xy + vec2f(f32(i % 3 - 1), f32(i / 3 - 1)) / 1024.0, v.lit.z - 0.006); }
      let direct = max(0.0, dot(normal, normalize(vec3f(sin(given.turn.x), 0.55, cos(given.turn.x))))) * sun / 9.0;
      return vec4f(mix(vec3f(0.5, 0.44, 0.3), vec3f(0.86, 0.78, 0.58), clamp(v.world.y * 0.5 + 0.5, 0.0, 1.0)) * (0.3 + 0.9 * direct), 1.0);
    }`, { vertex: 'place', fragment: 'shade', depth: true, buffers: layout });
  const map = device.createTexture({ size: [SHADOW_SIDE, SHADOW_SIDE], format: DEPTH, usage: GPUTextureUsage.RENDER_ATTACHMENT | GPUTextureUsage.TEXTURE_BINDING }).createView();
  const { held, set } = uniforms(device, 20);
  const sunGroup = bound(device, sunLine, [{ buffer: held }]);
  const group = bound(device, line, [{ buffer: held }, map, device.createSampler({ compare: 'less-equal', magFilter: 'linear', minFilter: 'linear' })]);
  const drawGround = (drawing: GPURenderPassEncoder) => {
    drawing.setVertexBuffer(0, points);
    drawing.setIndexBuffer(corners, 'uint32');
    drawing.drawIndexed(index.length);
    drawing.end();
  };
  return (moment, encoder) => {
    set([...view(size.width / size.height, 0.9, 4, 7), 0.6 + moment * 0.02]);
    const fromSun = encoder.beginRenderPass({ colorAttachments: [], depthStencilAttachment: { view: map, depthClearValue: 1, depthLoadOp: 'clear', depthStoreOp: 'store' } });
    fromSun.setPipeline(sunLine);
    fromSun.setBindGroup(0, sunGroup);
    drawGround(fromSun);
    const drawing = pass(encoder, at, [0.66, 0.74, 0.82, 1], true);
    drawing.setPipeline(line);
    drawing.setBindGroup(0, group);
    drawGround(drawing);
  };
}
