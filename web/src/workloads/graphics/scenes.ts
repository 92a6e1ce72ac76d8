import { attribute, buffer, program, view, WHOLE, type Gl, type Scene, type Size } from './gl.ts';
import { BIRDS, dunesGround, flightAtFirst, LICHEN_SIDE, lichenPixels, SHADOW_SIDE, STONES, stoneCorners, stonePlaces } from './matter.ts';

/** Mist in layers: what a graphics processor can fill and blend. */
function mist(gl: Gl): Scene {
  const layers = 24;
  const shader = program(gl, WHOLE, `
    in vec2 at; out vec4 colour; uniform float layer; uniform float moment;
    void main() { float d = distance(at, vec2(0.5 + 0.4 * sin(layer + moment), 0.5 + 0.4 * cos(layer * 1.7))); colour = vec4(0.3 + 0.02 * layer, 0.5, 0.7 - 0.02 * layer, 0.12 * smoothstep(0.9, 0.1, d)); }`);
  const [layer, moment] = [gl.getUniformLocation(shader, 'layer'), gl.getUniformLocation(shader, 'moment')];
  return {
    draw(at) {
      gl.disable(gl.DEPTH_TEST);
      gl.enable(gl.BLEND);
      gl.blendFunc(gl.SRC_ALPHA, gl.ONE_MINUS_SRC_ALPHA);
      gl.clearColor(0.1, 0.12, 0.14, 1);
      gl.clear(gl.COLOR_BUFFER_BIT);
      gl.useProgram(shader);
      gl.uniform1f(moment, at);
      for (let i = 0; i < layers; i++) {
        gl.uniform1f(layer, i);
        gl.drawArrays(gl.TRIANGLES, 0, 3);
      }
      gl.disable(gl.BLEND);
    },
  };
}

/** Lichen: many lookups in textures with all their sizes. */
function lichen(gl: Gl): Scene {
  const textures = lichenPixels().map((pixels, n) => {
    const texture = gl.createTexture();
    gl.activeTexture(gl.TEXTURE0 + n);
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA8, LICHEN_SIDE, LICHEN_SIDE, 0, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
    gl.generateMipmap(gl.TEXTURE_2D);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.LINEAR_MIPMAP_LINEAR);
    return texture;
  });
  const shader = program(gl, WHOLE, `
    in vec2 at; out vec4 colour; uniform float moment; uniform sampler2D t0; uniform sampler2D t1; uniform sampler2D t2; uniform sampler2D t3;
    void main() {
      vec3 sum = vec3(0.0);
      for (int i = 0; i < 3; i++) {
        float s = 1.0 + float(i) * 1.9;
        vec2 p = at * s + 0.03 * moment;
        sum += texture(t0, p).rgb + texture(t1, p.yx * 1.3).rgb + texture(t2, p + texture(t3, p * 0.7).rg).rgb;
      }
      colour = vec4(sum / 9.0, 1.0);
    }`);
  const moment = gl.getUniformLocation(shader, 'moment');
  gl.useProgram(shader);
  textures.forEach((_, n) => gl.uniform1i(gl.getUniformLocation(shader, `t${n}`), n));
  return {
    draw(at) {
      textures.forEach((texture, n) => {
        gl.activeTexture(gl.TEXTURE0 + n);
        gl.bindTexture(gl.TEXTURE_2D, texture);
      });
      gl.disable(gl.DEPTH_TEST);
      gl.useProgram(shader);
      gl.uniform1f(moment, at);
      gl.drawArrays(gl.TRIANGLES, 0, 3);
    },
  };
}

/** Pebbles: one small stone, drawn thousands of times, each with its place, turn and colour. */
function pebbles(gl: Gl, { width, height }: Size): Scene {
  const corners = stoneCorners();
  const shader = program(gl, `
    layout(location=0) in vec3 corner; layout(location=1) in vec4 place; layout(location=2) in float tint; uniform mat4 view; uniform float moment; out vec3 colour;
    void main() {
      float a = tint * 6.28 + moment; vec3 p = vec3(corner.x * cos(a) - corner.z * sin(a), corner.y * 0.6, corner.x * sin(a) + corner.z * cos(a));
      float light = 0.35 + 0.65 * max(0.0, dot(normalize(p), normalize(vec3(0.4, 0.8, 0.3))));
      colour = mix(vec3(0.55, 0.5, 0.42), vec3(0.35, 0.42, 0.45), tint) * light;
      gl_Position = view * vec4(p * place.w + place.xyz, 1.0);
    }`, 'in vec3 colour; out vec4 shown; void main() { shown = vec4(colour, 1.0); }');
  const state = gl.createVertexArray();
  gl.bindVertexArray(state);
  buffer(gl, corners);
  attribute(gl, 0, 3);
  buffer(gl, stonePlaces());
  attribute(gl, 1, 4, 20, 0, true);
  attribute(gl, 2, 1, 20, 16, true);
  gl.bindVertexArray(null);
  const [seen, moment] = [gl.getUniformLocation(shader, 'view'), gl.getUniformLocation(shader, 'moment')];
  return {
    draw(at) {
      gl.enable(gl.DEPTH_TEST);
      gl.clearColor(0.62, 0.66, 0.68, 1);
      gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
      gl.useProgram(shader);
      gl.bindVertexArray(state);
      gl.uniformMatrix4fv(seen, false, view(width / height, 0.3 + 0.01 * at, 6, 12));
      gl.uniform1f(moment, at);
      gl.drawArraysInstanced(gl.TRIANGLES, 0, corners.length / 3, STONES);
      gl.bindVertexArray(null);
    },
  };
}

/** The reed bed: each pixel walks through a field of reeds until it meets one. Nothing but arithmetic. */
function reedBed(gl: Gl, { width, height }: Size): Scene {
  const shader = program(gl, WHOLE, `
    in vec2 at; out vec4 colour; uniform float moment; uniform float aspect;
    float reeds(vec3 p) {
      vec2 cell = floor(p.xz); vec2 inside = fract(p.xz) - 0.5;
      float chance = fract(sin(dot(cell, vec2(12.9898, 78.233))) * 437.5453);
      float sway = 0.12 * p.y * p.y * sin(moment * 0.3 + cell.x * 0.7 + cell.y * 0.4);
      vec2 lean = inside - vec2(sway, 0.0) - 0.25 * (vec2(chance, fract(chance * 17.0)) - 0.5);
      float high = 0.9 + 0.7 * chance;
      float stem = length(lean) - mix(0.07, 0.02, clamp(p.y / high, 0.0, 1.0));
      return max(stem, p.y - high);
    }
    void main() {
      vec2 p = (at * 2.0 - 1.0) * vec2(aspect, 1.0);
      vec3 from = vec3(0.0, 1.5, moment * 0.1); vec3 way = normalize(vec3(p.x, p.y * 0.8 - 0.35, 1.3));
      float t = 0.0; float near = 1.0;
      for (int i = 0; i < 48; i++) {
        vec3 here = from + way * t;
        float d = min(reeds(here), here.y);
        near = min(near, d);
        if (d < 0.005 || t > 14.0) break;
        t += clamp(d * 0.7, 0.01, 0.3);
      }
      vec3 end = from + way * t;
      vec3 reed = mix(vec3(0.25, 0.3, 0.12), vec3(0.75, 0.68, 0.4), clamp(end.y, 0.0, 1.0));
      vec3 sky = mix(vec3(0.85, 0.87, 0.84), vec3(0.55, 0.68, 0.78), clamp(at.y, 0.0, 1.0));
      vec3 base = end.y < 0.02 ? vec3(0.2, 0.24, 0.2) : reed;
      colour = vec4(mix(base, sky, smoothstep(3.0, 14.0, t)), 1.0);
    }`);
  const [moment, aspect] = [gl.getUniformLocation(shader, 'moment'), gl.getUniformLocation(shader, 'aspect')];
  return {
    draw(at) {
      gl.disable(gl.DEPTH_TEST);
      gl.useProgram(shader);
      gl.uniform1f(moment, at);
      gl.uniform1f(aspect, width / height);
      gl.drawArrays(gl.TRIANGLES, 0, 3);
    },
  };
}

/** Herons: a flight whose every bird is moved on the graphics processor from where it was, and then drawn. */
function herons(gl: Gl, { width, height }: Size): Scene {
  const first = flightAtFirst();
  const move = program(gl, `
    layout(location=0) in vec3 place; layout(location=1) in vec3 speed; out vec3 nextPlace; out vec3 nextSpeed;
    void main() {
      vec3 home = -place / (0.6 + dot(place.xz, place.xz)); vec3 wind = vec3(sin(place.y * 2.0), 0.3 * sin(place.x), cos(place.y * 2.0)) * 0.3;
      nextSpeed = speed + (home * 1.4 + wind + vec3(0.0, -place.y * 0.5, 0.0)) * 0.02;
      nextSpeed *= min(1.0, 1.6 / max(length(nextSpeed), 0.001));
      nextPlace = place + nextSpeed * 0.02;
    }`, 'out vec4 colour; void main() { colour = vec4(0.0); }', ['nextPlace', 'nextSpeed']);
  const show = program(gl, `
    layout(location=0) in vec3 place; layout(location=1) in vec3 speed; uniform mat4 view; uniform float size; out float lift;
    void main() { gl_Position = view * vec4(place, 1.0); gl_PointSize = max(1.0, size / gl_Position.w); lift = 0.5 + 0.5 * normalize(speed).x; }`, `
    in float lift; out vec4 colour;
    void main() { vec2 p = gl_PointCoord * 2.0 - 1.0; if (abs(p.y - 0.3 * abs(p.x)) > 0.45) discard; colour = vec4(mix(vec3(0.25, 0.28, 0.32), vec3(0.92, 0.92, 0.9), lift), 1.0); }`);
  const flights = [0, 1].map(() => {
    const flight = gl.createBuffer()!;
    gl.bindBuffer(gl.ARRAY_BUFFER, flight);
    gl.bufferData(gl.ARRAY_BUFFER, first, gl.DYNAMIC_COPY);
    const state = gl.createVertexArray()!;
    gl.bindVertexArray(state);
    attribute(gl, 0, 3, 24, 0);
    attribute(gl, 1, 3, 24, 12);
    gl.bindVertexArray(null);
    return { flight, state };
  });
  gl.bindBuffer(gl.ARRAY_BUFFER, null);
  const feedback = gl.createTransformFeedback();
  const [seen, size] = [gl.getUniformLocation(show, 'view'), gl.getUniformLocation(show, 'size')];
  let now = 0;
  const step = () => {
    gl.useProgram(move);
    gl.bindVertexArray(flights[now]!.state);
    gl.bindTransformFeedback(gl.TRANSFORM_FEEDBACK, feedback);
    gl.bindBufferBase(gl.TRANSFORM_FEEDBACK_BUFFER, 0, flights[1 - now]!.flight);
    gl.enable(gl.RASTERIZER_DISCARD);
    gl.beginTransformFeedback(gl.POINTS);
    gl.drawArrays(gl.POINTS, 0, BIRDS);
    gl.endTransformFeedback();
    gl.disable(gl.RASTERIZER_DISCARD);
    gl.bindTransformFeedback(gl.TRANSFORM_FEEDBACK, null);
    now = 1 - now;
  };
  return {
    draw(at) {
      if (at === 0) {
        // The first moment is always the same, however long the flight has been.
        now = 0;
        gl.bindBuffer(gl.ARRAY_BUFFER, flights[0]!.flight);
        gl.bufferSubData(gl.ARRAY_BUFFER, 0, first);
        gl.bindBuffer(gl.ARRAY_BUFFER, null);
      }
      for (let i = 0; i < 4; i++) step();
      gl.enable(gl.DEPTH_TEST);
      gl.clearColor(0.7, 0.76, 0.8, 1);
      gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
      gl.useProgram(show);
      gl.bindVertexArray(flights[now]!.state);
      gl.uniformMatrix4fv(seen, false, view(width / height, 0.7, 3, 9));
      gl.uniform1f(size, height / 14);
      gl.drawArrays(gl.POINTS, 0, BIRDS);
      gl.bindVertexArray(null);
    },
  };
}

/** Dunes: ground of many triangles that throws shadows on itself; the ground is drawn twice, once from the sun. */
function dunes(gl: Gl, { width, height }: Size): Scene {
  const { ground, index } = dunesGround();
  const state = gl.createVertexArray();
  gl.bindVertexArray(state);
  buffer(gl, ground);
  attribute(gl, 0, 3);
  buffer(gl, index, gl.ELEMENT_ARRAY_BUFFER);
  gl.bindVertexArray(null);
  const SUN = `vec3 fromSun(vec3 p, float turn) {
    vec3 z = normalize(vec3(sin(turn), 0.55, cos(turn))); vec3 x = normalize(vec3(z.z, 0.0, -z.x)); vec3 y = cross(z, x);
    return vec3(dot(p, x) / 9.0, dot(p, y) / 9.0, -dot(p, z) / 12.0);
  }`;
  const fromSun = program(gl, `layout(location=0) in vec3 place; uniform float turn; ${SUN} void main() { gl_Position = vec4(fromSun(place, turn), 1.0); }`, 'void main() {}');
  const shown = program(gl, `layout(location=0) in vec3 place; uniform mat4 view; uniform float turn; out vec3 lit; out vec3 world; ${SUN}
    void main() { world = place; lit = fromSun(place, turn) * 0.5 + 0.5; gl_Position = view * vec4(place, 1.0); }`, `
    in vec3 lit; in vec3 world; out vec4 colour; uniform highp sampler2DShadow shadow; uniform float turn;
    void main() {
      vec3 normal = normalize(cross(dFdx(world), dFdy(world))); if (normal.y < 0.0) normal = -normal;
      float sun = 0.0;
      for (int i = 0; i < 9; i++) sun += texture(shadow, lit + vec3(float(i % 3 - 1) / 1024.0, float(i / 3 - 1) / 1024.0, -0.006));
      float direct = max(0.0, dot(normal, normalize(vec3(sin(turn), 0.55, cos(turn))))) * sun / 9.0;
      colour = vec4(mix(vec3(0.5, 0.44, 0.3), vec3(0.86, 0.78, 0.58), clamp(world.y * 0.5 + 0.5, 0.0, 1.0)) * (0.3 + 0.9 * direct), 1.0);
    }`);
  const map = gl.createTexture();
  gl.activeTexture(gl.TEXTURE0);
  gl.bindTexture(gl.TEXTURE_2D, map);
  gl.texStorage2D(gl.TEXTURE_2D, 1, gl.DEPTH_COMPONENT24, SHADOW_SIDE, SHADOW_SIDE);
  gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_COMPARE_MODE, gl.COMPARE_REF_TO_TEXTURE);
  gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.LINEAR);
  gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE);
  gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE);
  const picture = gl.getParameter(gl.FRAMEBUFFER_BINDING) as WebGLFramebuffer | null;
  const shadowFrame = gl.createFramebuffer();
  gl.bindFramebuffer(gl.FRAMEBUFFER, shadowFrame);
  gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.DEPTH_ATTACHMENT, gl.TEXTURE_2D, map, 0);
  gl.drawBuffers([gl.NONE]);
  gl.bindFramebuffer(gl.FRAMEBUFFER, picture);
  const places = { sun: gl.getUniformLocation(fromSun, 'turn'), turn: gl.getUniformLocation(shown, 'turn'), view: gl.getUniformLocation(shown, 'view') };
  return {
    draw(at) {
      const turn = 0.6 + at * 0.02;
      gl.enable(gl.DEPTH_TEST);
      gl.bindVertexArray(state);
      gl.bindFramebuffer(gl.FRAMEBUFFER, shadowFrame);
      gl.viewport(0, 0, SHADOW_SIDE, SHADOW_SIDE);
      gl.clear(gl.DEPTH_BUFFER_BIT);
      gl.useProgram(fromSun);
      gl.uniform1f(places.sun, turn);
      gl.drawElements(gl.TRIANGLES, index.length, gl.UNSIGNED_INT, 0);
      gl.bindFramebuffer(gl.FRAMEBUFFER, picture);
      gl.viewport(0, 0, width, height);
      gl.clearColor(0.66, 0.74, 0.82, 1);
      gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
      gl.useProgram(shown);
      gl.activeTexture(gl.TEXTURE0);
      gl.bindTexture(gl.TEXTURE_2D, map);
      gl.uniform1f(places.turn, turn);
      gl.uniformMatrix4fv(places.view, false, view(width / height, 0.9, 4, 7));
      gl.drawElements(gl.TRIANGLES, index.length, gl.UNSIGNED_INT, 0);
      gl.bindVertexArray(null);
    },
  };
}

export const SCENES: Record<string, (gl: Gl, size: Size) => Scene> = { mist, lichen, pebbles, 'reed-bed': reedBed, herons, dunes };
