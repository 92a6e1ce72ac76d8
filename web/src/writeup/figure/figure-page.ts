import { framed, lines, WIDTH, HEIGHT, type PaintName } from '../../export/page.ts';
import { tokens } from '../../export/screen-figure.ts';
import type { Drawn } from './drawn.ts';

const [MARGIN, CAPTION] = [80, 150];

/** A figure on a page of 1920 by 1080 that needs no file beside it. @param caption below it */
export function figurePage(drawn: Drawn, caption: string, paint: PaintName, font: string): string {
  const colour = tokens(paint === 'dark' ? 'dark' : 'light');
  const scale = Math.min((WIDTH - 2 * MARGIN) / drawn.width, (HEIGHT - 2 * MARGIN - CAPTION) / drawn.height);
  const inner = drawn.svg
    .replace(/^<svg[^>]*>/, '')
    .replace(/<\/svg>$/, '')
    .replace(/var\(--accent, var\(--leaf\)\)/g, colour('--leaf'))
    .replace(/var\((--[\w-]+)\)/g, (_, token: string) => colour(token));
  return framed(paint === 'transparent' ? null : colour('--paper'), font, [
    `<g transform="translate(${((WIDTH - drawn.width * scale) / 2).toFixed(1)} ${MARGIN}) scale(${scale.toFixed(4)})">${inner}</g>`,
    lines(MARGIN, HEIGHT - CAPTION + 40, caption, 28, colour('--ink-2'), WIDTH - 2 * MARGIN).drawn,
  ]);
}
