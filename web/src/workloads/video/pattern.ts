import type { Step } from './steps.ts';

type Canvas2d = OffscreenCanvasRenderingContext2D;

/** A test pattern that moves all over, so that no frame is like the one before: bands, a turning cross, and a number. */
export function drawFrame(context: Canvas2d, { width, height, fps }: Step, frame: number): void {
  const seconds = frame / fps;
  const bands = 24;
  for (let band = 0; band < bands; band++) {
    const shade = 40 + ((band * 37 + frame * 3) % 170);
    context.fillStyle = `rgb(${shade}, ${(shade * 3) % 200}, ${200 - shade / 2})`;
    context.fillRect(((band * width) / bands + frame * 2) % width, 0, width / bands + 1, height);
  }
  context.save();
  context.translate(width / 2, height / 2);
  context.rotate(seconds * 1.7);
  context.fillStyle = '#f4f0e4';
  context.fillRect(-width / 3, -height / 40, (width * 2) / 3, height / 20);
  context.fillRect(-height / 40, -height / 3, height / 20, (height * 2) / 3);
  context.restore();
  // Grain that a codec cannot foresee.
  for (let i = 0; i < 160; i++) {
    const at = Math.imul(frame * 160 + i, 2654435761) >>> 0;
    context.fillStyle = i % 2 ? '#1d2a24' : '#c8a24a';
    context.fillRect(at % width, (at >>> 12) % height, height / 90, height / 90);
  }
}
