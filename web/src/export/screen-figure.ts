import { escaped, framed, HEIGHT, WIDTH, type PaintName } from './page.ts';

const [MARGIN, CAPTION] = [60, 90];

/** A picture that is on the screen, for itself: on a page of its own, its colours resolved in the paper that is asked for. */
export function screenFigure(shown: SVGSVGElement, caption: string, paint: PaintName, font: string): string {
  const colour = tokens(paint === 'dark' ? 'dark' : 'light');
  const box = shown.viewBox.baseVal;
  const scale = Math.min((WIDTH - 2 * MARGIN) / box.width, (HEIGHT - 2 * MARGIN - CAPTION) / box.height);
  const inner = new XMLSerializer()
    .serializeToString(shown)
    .replace(/^<svg[^>]*>/, '')
    .replace(/<\/svg>$/, '')
    .replace(/var\((--[\w-]+)\)/g, (_, token: string) => colour(token));
  return framed(paint === 'transparent' ? null : colour('--paper'), font, [
    `<text x="${MARGIN}" y="${MARGIN + 34}" font-size="34" font-weight="600" fill="${colour('--ink')}">${escaped(caption)}</text>`,
    `<g transform="translate(${((WIDTH - box.width * scale) / 2).toFixed(1)} ${MARGIN + CAPTION}) scale(${scale.toFixed(4)})">${inner}</g>`,
  ]);
}

/** The sheet's colours on light or dark paper, whichever is lit now. Nothing is painted between the two changes. */
export function tokens(theme: 'light' | 'dark'): (token: string) => string {
  const root = document.documentElement;
  const before = root.dataset.theme;
  if (theme === 'dark') root.dataset.theme = 'dark';
  else delete root.dataset.theme;
  const style = getComputedStyle(root);
  const names = [
    '--paper',
    '--sheet',
    '--ink',
    '--ink-2',
    '--ink-3',
    '--hair',
    '--hair-2',
    '--tick',
    '--band',
    '--leaf',
    '--gold',
    '--plum',
    ...Array.from({ length: 8 }, (_, i) => `--mark-${i + 1}`),
  ];
  const values = new Map(names.map((name) => [name, style.getPropertyValue(name).trim()]));
  if (before === undefined) delete root.dataset.theme;
  else root.dataset.theme = before;
  return (token) => values.get(token) ?? '#808080';
}
