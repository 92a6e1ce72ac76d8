import { seeded } from '../random.ts';

/** What the scenes are made of, the same whichever interface draws them. Plain numbers, made anew from seeds. */

const AROUND = 2 * Math.PI;

export const LICHEN_SIDE = 512;
export const LICHENS = 4;

/** Pictures of lichen, four bytes a pixel. */
export function lichenPixels(): Uint8Array<ArrayBuffer>[] {
  const random = seeded(12);
  return Array.from({ length: LICHENS }, (_, n) => {
    const pixels = new Uint8Array(LICHEN_SIDE * LICHEN_SIDE * 4);
    for (let i = 0; i < LICHEN_SIDE * LICHEN_SIDE; i++) {
      const [row, column] = [Math.floor(i / LICHEN_SIDE), i % LICHEN_SIDE];
      const patch = Math.sin(row / (9 + n)) * Math.cos(column / (7 + 2 * n)) * 60 + 120;
      pixels.set([patch + random() * 30, patch * 0.8 + random() * 40, patch * 0.5, 255], i * 4);
    }
    return pixels;
  });
}

export const STONES = 6000;

/** Corners of one stone, three for each of its faces; three numbers a corner. */
export function stoneCorners(): Float32Array<ArrayBuffer> {
  const t = (1 + Math.sqrt(5)) / 2;
  const points = [[-1, t, 0], [1, t, 0], [-1, -t, 0], [1, -t, 0], [0, -1, t], [0, 1, t], [0, -1, -t], [0, 1, -t], [t, 0, -1], [t, 0, 1], [-t, 0, -1], [-t, 0, 1]];
  const faces = [0, 11, 5, 0, 5, 1, 0, 1, 7, 0, 7, 10, 0, 10, 11, 1, 5, 9, 5, 11, 4, 11, 10, 2, 10, 7, 6, 7, 1, 8, 3, 9, 4, 3, 4, 2, 3, 2, 6, 3, 6, 8, 3, 8, 9, 4, 9, 5, 2, 4, 11, 6, 2, 10, 8, 6, 7, 9, 8, 1];
  return new Float32Array(faces.flatMap((i) => points[i]!.map((v) => v / 1.902)));
}

/** Place, size and tint of each stone: five numbers. */
export function stonePlaces(): Float32Array<ArrayBuffer> {
  const random = seeded(31);
  const each = new Float32Array(STONES * 5);
  for (let i = 0; i < STONES; i++) each.set([random() * 20 - 10, random() * 0.6, random() * 20 - 10, 0.05 + random() * 0.12, random()], i * 5);
  return each;
}

export const BIRDS = 40_000;

/** Place and speed of each bird at first: six numbers. */
export function flightAtFirst(): Float32Array<ArrayBuffer> {
  const random = seeded(404);
  const first = new Float32Array(BIRDS * 6);
  for (let i = 0; i < BIRDS; i++) {
    const [a, r] = [random() * AROUND, 1 + random() * 5];
    first.set([r * Math.sin(a), random() * 3 - 1.5, r * Math.cos(a), Math.cos(a), random() * 0.4 - 0.2, -Math.sin(a)], i * 6);
  }
  return first;
}

const DUNES_SIDE = 192;
export const SHADOW_SIDE = 1024;

/** The ground of the dunes: points of three numbers, and the corners of its triangles. */
export function dunesGround(): { ground: Float32Array<ArrayBuffer>; index: Uint32Array<ArrayBuffer> } {
  const heights = (x: number, z: number) => 0.9 * Math.sin(x * 0.9) * Math.cos(z * 0.7) + 0.35 * Math.sin(x * 2.3 + z * 1.1) + 0.1 * Math.cos(z * 5.1);
  const ground = new Float32Array(DUNES_SIDE * DUNES_SIDE * 3);
  for (let r = 0; r < DUNES_SIDE; r++) {
    for (let c = 0; c < DUNES_SIDE; c++) {
      const [x, z] = [(c / (DUNES_SIDE - 1)) * 12 - 6, (r / (DUNES_SIDE - 1)) * 12 - 6];
      ground.set([x, heights(x, z), z], (r * DUNES_SIDE + c) * 3);
    }
  }
  const index = new Uint32Array((DUNES_SIDE - 1) * (DUNES_SIDE - 1) * 6);
  for (let r = 0, i = 0; r < DUNES_SIDE - 1; r++) {
    for (let c = 0; c < DUNES_SIDE - 1; c++, i += 6) index.set([0, DUNES_SIDE, 1, 1, DUNES_SIDE, DUNES_SIDE + 1].map((v) => r * DUNES_SIDE + c + v), i);
  }
  return { ground, index };
}
