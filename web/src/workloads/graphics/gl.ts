/** Small helpers around the graphics interface, and what every scene is. */

export type Gl = WebGL2RenderingContext;

/** A scene that was prepared: draws the picture of a moment into the target that is bound. */
export interface Scene {
  draw(moment: number): void;
}

export interface Size {
  width: number;
  height: number;
}

/** Of pictures off screen, by the word a test's key ends with. */
export const SIZES: Record<string, Size> = { '720': { width: 1280, height: 720 }, '1080': { width: 1920, height: 1080 } };

const VERSION = '#version 300 es\nprecision highp float;\nprecision highp int;\n';

export function program(gl: Gl, vertex: string, fragment: string, kept: string[] = []): WebGLProgram {
  const made = gl.createProgram()!;
  for (const [kind, source] of [[gl.VERTEX_SHADER, vertex], [gl.FRAGMENT_SHADER, fragment]] as const) {
    const shader = gl.createShader(kind)!;
    gl.shaderSource(shader, VERSION + source);
    gl.compileShader(shader);
    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS) && !gl.isContextLost()) throw new Error(`a shader was refused: ${gl.getShaderInfoLog(shader)}`);
    gl.attachShader(made, shader);
  }
  if (kept.length > 0) gl.transformFeedbackVaryings(made, kept, gl.INTERLEAVED_ATTRIBS);
  gl.linkProgram(made);
  if (!gl.getProgramParameter(made, gl.LINK_STATUS) && !gl.isContextLost()) throw new Error(`the shaders do not fit together: ${gl.getProgramInfoLog(made)}`);
  return made;
}

/** Covers the whole picture with one triangle. */
export const WHOLE = `
out vec2 at;
void main() {
  vec2 corner = vec2(float((gl_VertexID << 1) & 2), float(gl_VertexID & 2));
  at = corner;
  gl_Position = vec4(corner * 2.0 - 1.0, 0.0, 1.0);
}`;

/** A target that is not shown, with depth. */
export function target(gl: Gl, { width, height }: Size): WebGLFramebuffer {
  const frame = gl.createFramebuffer()!;
  gl.bindFramebuffer(gl.FRAMEBUFFER, frame);
  const colour = gl.createRenderbuffer();
  gl.bindRenderbuffer(gl.RENDERBUFFER, colour);
  gl.renderbufferStorage(gl.RENDERBUFFER, gl.RGBA8, width, height);
  gl.framebufferRenderbuffer(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.RENDERBUFFER, colour);
  const depth = gl.createRenderbuffer();
  gl.bindRenderbuffer(gl.RENDERBUFFER, depth);
  gl.renderbufferStorage(gl.RENDERBUFFER, gl.DEPTH_COMPONENT24, width, height);
  gl.framebufferRenderbuffer(gl.FRAMEBUFFER, gl.DEPTH_ATTACHMENT, gl.RENDERBUFFER, depth);
  if (gl.checkFramebufferStatus(gl.FRAMEBUFFER) !== gl.FRAMEBUFFER_COMPLETE && !gl.isContextLost()) throw new Error(`a picture of ${width} by ${height} cannot be drawn here`);
  return frame;
}

export function buffer(gl: Gl, data: Float32Array | Uint16Array | Uint32Array, kind: number = gl.ARRAY_BUFFER): WebGLBuffer {
  const made = gl.createBuffer()!;
  gl.bindBuffer(kind, made);
  gl.bufferData(kind, data, gl.STATIC_DRAW);
  return made;
}

export function attribute(gl: Gl, place: number, size: number, stride = 0, offset = 0, perInstance = false): void {
  gl.enableVertexAttribArray(place);
  gl.vertexAttribPointer(place, size, gl.FLOAT, false, stride, offset);
  gl.vertexAttribDivisor(place, perInstance ? 1 : 0);
}

/** A view from above the ground, as sixteen numbers by column. */
export function view(aspect: number, turn: number, height: number, far: number): Float32Array {
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  const eye = [far * s, height, far * c];
  const long = Math.hypot(...eye);
  const z = eye.map((v) => v / long) as [number, number, number];
  const flat = Math.hypot(z[0], z[2]);
  const x = [z[2] / flat, 0, -z[0] / flat] as const;
  const y = [z[1] * x[2] - z[2] * x[1], z[2] * x[0] - z[0] * x[2], z[0] * x[1] - z[1] * x[0]] as const;
  const [near, end, focal] = [0.5, 100, 1.6];
  const look = [x, y, z].map((axis) => [...axis, -(axis[0]! * eye[0]! + axis[1]! * eye[1]! + axis[2]! * eye[2]!)]);
  const lens = [[focal / aspect, 0, 0, 0], [0, focal, 0, 0], [0, 0, (end + near) / (near - end), (2 * end * near) / (near - end)], [0, 0, -1, 0]];
  const rows = [...look, [0, 0, 0, 1]];
  const out = new Float32Array(16);
  for (let r = 0; r < 4; r++) for (let k = 0; k < 4; k++) out[k * 4 + r] = rows.reduce((sum, row, i) => sum + lens[r]![i]! * row[k]!, 0);
  return out;
}
