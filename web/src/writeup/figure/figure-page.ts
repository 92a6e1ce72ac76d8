import { framed, lines, text, WIDTH, HEIGHT, type PaintName } from '../../export/page.ts';
import { tokens } from '../../export/screen-figure.ts';
import type { Drawn } from './drawn.ts';

const [MARGIN, CAPTION, TITLE, GAP] = [80, 150, 56, 40];

/**
 * A figure on a page of 1920 by 1080 that needs no file beside it.
 *
 * @param drawn   the figure, or its columns from left to right
 * @param caption below it
 * @param title   above it: what it is, and what comes of it
 */
export function figurePage(
  drawn: Pick<Drawn, 'svg' | 'width' | 'height'> | readonly Pick<Drawn, 'svg' | 'width' | 'height'>[],
  caption: string,
  paint: PaintName,
  font: string,
  title?: { name: string; more: readonly string[] },
): string {
  const colour = tokens(paint === 'dark' ? 'dark' : 'light');
  const columns = 'svg' in drawn ? [drawn] : drawn;
  const top = MARGIN + (title ? TITLE + title.more.length * 40 : 0);
  const width = columns.reduce((w, d) => w + d.width, (columns.length - 1) * GAP);
  const height = Math.max(...columns.map((d) => d.height));
  const scale = Math.min((WIDTH - 2 * MARGIN) / width, (HEIGHT - top - MARGIN - CAPTION) / height);
  const before = columns.map((_, i) => columns.slice(0, i).reduce((w, d) => w + d.width + GAP, 0));
  const inner = (svg: string) =>
    svg
      .replace(/^<svg[^>]*>/, '')
      .replace(/<\/svg>$/, '')
      .replace(/var\(--accent, var\(--leaf\)\)/g, colour('--leaf'))
      .replace(/var\((--[\w-]+)\)/g, (_, token: string) => colour(token));
  return framed(paint === 'transparent' ? null : colour('--paper'), font, [
    title
      ? text(MARGIN, MARGIN + 20, title.name, 40, colour('--ink'), { weight: 600, most: WIDTH - 2 * MARGIN }) +
        title.more
          .map((line, i) =>
            text(MARGIN, MARGIN + 66 + i * 40, line, 30, colour('--ink-2'), { most: WIDTH - 2 * MARGIN }),
          )
          .join('')
      : '',
    ...columns.map(
      (d, i) =>
        `<g transform="translate(${((WIDTH - width * scale) / 2 + before[i]! * scale).toFixed(1)} ${top}) scale(${scale.toFixed(4)})">${inner(d.svg)}</g>`,
    ),
    lines(MARGIN, HEIGHT - CAPTION + 40, caption, 28, colour('--ink-2'), WIDTH - 2 * MARGIN).drawn,
  ]);
}
