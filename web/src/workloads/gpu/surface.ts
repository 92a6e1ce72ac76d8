/// <reference types="@webgpu/types" />
import type { Size } from '../graphics/gl.ts';

/** Small helpers around WebGPU, and what its scenes draw into. */

export const COLOUR: GPUTextureFormat = 'rgba8unorm';
export const DEPTH: GPUTextureFormat = 'depth24plus';

/** A picture that is not shown, with depth. */
export interface Surface {
  device: GPUDevice;
  size: Size;
  picture: GPUTexture;
  colour: GPUTextureView;
  depth: GPUTextureView;
}

/** A scene that was prepared: asks for the picture of a moment. */
export type GpuScene = (moment: number, encoder: GPUCommandEncoder) => void;

export function surface(device: GPUDevice, size: Size): Surface {
  const picture = device.createTexture({ size: [size.width, size.height], format: COLOUR, usage: GPUTextureUsage.RENDER_ATTACHMENT | GPUTextureUsage.COPY_SRC });
  const depth = device.createTexture({ size: [size.width, size.height], format: DEPTH, usage: GPUTextureUsage.RENDER_ATTACHMENT });
  return { device, size, picture, colour: picture.createView(), depth: depth.createView() };
}

export function buffer(device: GPUDevice, data: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>, usage: GPUBufferUsageFlags): GPUBuffer {
  const made = device.createBuffer({ size: data.byteLength, usage: usage | GPUBufferUsage.COPY_DST });
  device.queue.writeBuffer(made, 0, data);
  return made;
}

/** Numbers that every shader of a scene reads; written anew for each moment. */
export function uniforms(device: GPUDevice, floats: number): { held: GPUBuffer; set: (values: ArrayLike<number>) => void } {
  const held = device.createBuffer({ size: floats * 4, usage: GPUBufferUsage.UNIFORM | GPUBufferUsage.COPY_DST });
  const copy = new Float32Array(floats);
  return {
    held,
    set(values) {
      copy.set(values);
      device.queue.writeBuffer(held, 0, copy);
    },
  };
}

/** Covers the whole picture with one triangle; "at" runs from 0 to 1, upwards. */
export const WHOLE = `
struct Whole { @builtin(position) position: vec4f, @location(0) at: vec2f, @location(1) @interpolate(flat) layer: u32 }
@vertex fn whole(@builtin(vertex_index) vertex: u32, @builtin(instance_index) layer: u32) -> Whole {
  let corner = vec2f(f32((vertex << 1) & 2), f32(vertex & 2));
  return Whole(vec4f(corner * 2.0 - 1.0, 0.0, 1.0), corner, layer);
}`;

/** The view's matrix is the one of the other graphics interface, whose depth runs from −1 to 1. */
export const SEEN = `
fn seen(view: mat4x4f, p: vec3f) -> vec4f { var at = view * vec4f(p, 1.0); at.z = (at.z + at.w) * 0.5; return at; }`;

export function pipeline(device: GPUDevice, code: string, more: { vertex: string; fragment?: string; buffers?: GPUVertexBufferLayout[]; blend?: GPUBlendState; depth?: boolean; topology?: GPUPrimitiveTopology }): GPURenderPipeline {
  const module = device.createShaderModule({ code });
  return device.createRenderPipeline({
    layout: 'auto',
    vertex: { module, entryPoint: more.vertex, ...(more.buffers ? { buffers: more.buffers } : {}) },
    ...(more.fragment ? { fragment: { module, entryPoint: more.fragment, targets: [{ format: COLOUR, ...(more.blend ? { blend: more.blend } : {}) }] } } : {}),
    primitive: { topology: more.topology ?? 'triangle-list' },
    ...(more.depth ? { depthStencil: { format: DEPTH, depthWriteEnabled: true, depthCompare: 'less' as const } } : {}),
  });
}

/** A pass into the picture, cleared first. */
export function pass(encoder: GPUCommandEncoder, at: Surface, clear: GPUColor, deep: boolean): GPURenderPassEncoder {
  return encoder.beginRenderPass({
    colorAttachments: [{ view: at.colour, clearValue: clear, loadOp: 'clear', storeOp: 'store' }],
    ...(deep ? { depthStencilAttachment: { view: at.depth, depthClearValue: 1, depthLoadOp: 'clear' as const, depthStoreOp: 'store' as const } } : {}),
  });
}

export function bound(device: GPUDevice, line: GPURenderPipeline | GPUComputePipeline, resources: readonly GPUBindingResource[]): GPUBindGroup {
  return device.createBindGroup({ layout: line.getBindGroupLayout(0), entries: resources.map((resource, binding) => ({ binding, resource })) });
}
