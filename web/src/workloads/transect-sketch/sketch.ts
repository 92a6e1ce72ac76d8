import { seeded } from '../random.ts';

export const WIDTH = 960;
export const HEIGHT = 640;
const TRANSECTS = 120;
const LABELS = 80;
const SYMBOLS = 160;

type Context = OffscreenCanvasRenderingContext2D;

/** A plant symbol, drawn once and stamped many times. */
export function makeSymbol(): OffscreenCanvas {
  const symbol = new OffscreenCanvas(32, 32);
  const context = symbol.getContext('2d')!;
  context.fillStyle = '#2f6247';
  for (let leaf = 0; leaf < 6; leaf++) {
    context.save();
    context.translate(16, 16);
    context.rotate((leaf * Math.PI) / 3);
    context.beginPath();
    context.ellipse(0, -8, 3.5, 7, 0, 0, Math.PI * 2);
    context.fill();
    context.restore();
  }
  return symbol;
}

/** One drawing: ground, transects, symbols, and labels where wanted. The same for the same seed. */
export function draw(context: Context, symbol: OffscreenCanvas, seed: number, labels: boolean): void {
  const random = seeded(seed);
  context.fillStyle = '#f2ead6';
  context.fillRect(0, 0, WIDTH, HEIGHT);
  context.fillStyle = '#9fbfd4';
  context.beginPath();
  context.moveTo(0, HEIGHT * 0.7);
  for (let x = 0; x <= WIDTH; x += 60) context.quadraticCurveTo(x + 30, HEIGHT * (0.62 + random() * 0.12), x + 60, HEIGHT * 0.7);
  context.lineTo(WIDTH, HEIGHT);
  context.lineTo(0, HEIGHT);
  context.fill();
  for (let i = 0; i < TRANSECTS; i++) {
    context.strokeStyle = i % 3 === 0 ? '#74386b' : i % 3 === 1 ? '#b7791f' : '#1d2a24';
    context.lineWidth = 1 + (i % 4) * 0.5;
    context.setLineDash(i % 5 === 0 ? [6, 4] : []);
    context.beginPath();
    context.moveTo(random() * WIDTH, random() * HEIGHT);
    context.bezierCurveTo(random() * WIDTH, random() * HEIGHT, random() * WIDTH, random() * HEIGHT, random() * WIDTH, random() * HEIGHT);
    context.stroke();
  }
  context.setLineDash([]);
  for (let i = 0; i < SYMBOLS; i++) {
    const size = 14 + random() * 18;
    context.globalAlpha = 0.6 + random() * 0.4;
    context.drawImage(symbol, random() * (WIDTH - size), random() * (HEIGHT - size), size, size);
  }
  context.globalAlpha = 1;
  if (!labels) return;
  context.fillStyle = '#1d2a24';
  for (let i = 0; i < LABELS; i++) {
    context.font = `${11 + (i % 3) * 2}px sans-serif`;
    context.fillText(`Plot ${i + 1}, ${Math.floor(random() * 90)} %`, random() * (WIDTH - 90), 12 + random() * (HEIGHT - 20));
  }
}

export const GRID_COLUMNS = 8;
export const GRID_ROWS = 6;

/** Mean brightness (0 to 255) of a coarse grid of fields: what stays the same however edges are smoothed. */
export function brightness(pixels: Uint8ClampedArray, width: number, height: number): number[] {
  const sums = new Float64Array(GRID_COLUMNS * GRID_ROWS);
  const counts = new Float64Array(GRID_COLUMNS * GRID_ROWS);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      const field = Math.floor((y * GRID_ROWS) / height) * GRID_COLUMNS + Math.floor((x * GRID_COLUMNS) / width);
      sums[field]! += 0.299 * pixels[at]! + 0.587 * pixels[at + 1]! + 0.114 * pixels[at + 2]!;
      counts[field]! += 1;
    }
  }
  return Array.from(sums, (sum, i) => sum / counts[i]!);
}

/** Largest difference between two grids. */
export function farthest(a: readonly number[], b: readonly number[]): number {
  if (a.length !== b.length) return Infinity;
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]!)), 0);
}
