import { seeded } from '../random.ts';
import { WrongAnswer } from '../types.ts';
import type { PageWork } from './frame.ts';

/** A map in SVG: shores, paths and places, drawn, panned, recoloured and asked where things are. */
const SHAPES = 160;
const POINTS = 24;
const SIDE = 600;
const PANS = 6;
const NAMESPACE = 'http://www.w3.org/2000/svg';

export const STYLE = `* { margin: 0 } path { stroke: #345; stroke-width: 1 } .out { opacity: .4 } text { font: 9px sans-serif }`;

export interface Shape {
  points: [number, number][];
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export function makeShapes(seed: number): Shape[] {
  const random = seeded(seed);
  return Array.from({ length: SHAPES }, () => {
    const [x, y, size] = [60 + random() * (SIDE - 120), 60 + random() * (SIDE - 120), 12 + random() * 40];
    const points = Array.from({ length: POINTS }, (_, i): [number, number] => {
      const [angle, far] = [(i / POINTS) * 2 * Math.PI, size * (0.6 + 0.4 * random())];
      // Whole quarters of a pixel: every engine keeps those exactly.
      return [Math.round((x + far * Math.cos(angle)) * 4) / 4, Math.round((y + far * Math.sin(angle)) * 4) / 4];
    });
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    return { points, left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
  });
}

export function prepare(body: HTMLElement): PageWork {
  const document = body.ownerDocument;
  const shapes = makeShapes(77);
  return {
    perRound: 1,
    work(rounds) {
      for (let i = 0; i < rounds; i++) once(document, body, shapes);
    },
  };
}

function once(document: Document, body: HTMLElement, shapes: readonly Shape[]): void {
  const map = document.createElementNS(NAMESPACE, 'svg');
  map.setAttribute('width', String(SIDE));
  map.setAttribute('height', String(SIDE));
  const layer = document.createElementNS(NAMESPACE, 'g');
  const paths = shapes.map((shape, n) => {
    const path = document.createElementNS(NAMESPACE, 'path');
    path.setAttribute('d', `M${shape.points.map((p) => p.join(' ')).join('L')}Z`);
    path.setAttribute('fill', `hsl(${(n * 47) % 360} 40% 70%)`);
    layer.append(path);
    if (n % 4 === 0) {
      const name = document.createElementNS(NAMESPACE, 'text');
      name.setAttribute('x', String(shape.left));
      name.setAttribute('y', String(shape.top));
      name.textContent = `shore ${n}`;
      layer.append(name);
    }
    return path;
  });
  map.append(layer);
  body.append(map);
  shapes.forEach((shape, n) => {
    const box = paths[n]!.getBBox();
    if (Math.abs(box.x - shape.left) > 0.01 || Math.abs(box.y - shape.top) > 0.01 || Math.abs(box.x + box.width - shape.right) > 0.01 || Math.abs(box.y + box.height - shape.bottom) > 0.01) {
      throw new WrongAnswer(`Shore ${n} is not where it should be.`);
    }
  });
  for (let pan = 0; pan < PANS; pan++) {
    layer.setAttribute('transform', `translate(${-pan * 7} ${pan * 3}) scale(${1 + pan / 8})`);
    paths.forEach((path, n) => n % PANS === pan && path.classList.toggle('out'));
    const first = paths[pan]!.getBoundingClientRect();
    const wide = (shapes[pan]!.right - shapes[pan]!.left) * (1 + pan / 8);
    // The line around a shape counts in some engines and not in others, and in some as wide as its sharpest corner could
    // be: four times the line, half of it on each side.
    if (first.width < wide - 0.5 || first.width > wide + 4 * (1 + pan / 8) + 0.5) throw new WrongAnswer(`Shore ${pan} is ${first.width} pixels wide after panning and should be ${wide}.`);
  }
  map.remove();
}
