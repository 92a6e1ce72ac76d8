import { fitted } from '../../chart/text-width.ts';
import { escaped } from '../../export/page.ts';
import type { NumberQuestion } from '../question/questions.ts';

/** A drawing with what goes with it wherever it is shown. */
export interface Drawn {
  /** Whose colours are those of the page: var(--ink) and so on. */
  svg: string;
  /** The same for a screen as wide as a phone, where its rows have another form there. */
  narrow?: string | undefined;
  width: number;
  height: number;
  /** Proposed; the writer may say it otherwise. */
  caption: string;
  alt: string;
  columns: string[];
  rows: string[][];
  /** What the numbers of the rows stand for, so that a text can speak of them; rows and cells that stand for none are left out. */
  asks?: (NumberQuestion | undefined)[][] | undefined;
}

/** Of a page in an article, in the units of its drawing. */
export const ARTICLE_WIDTH = 690;

export function svgOf(width: number, height: number, parts: readonly string[]): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height.toFixed(0)}" width="${width}" height="${height.toFixed(0)}">${parts.join('')}</svg>`;
}

export interface Words {
  size?: number;
  weight?: number;
  fill?: string;
  end?: boolean;
  middle?: boolean;
  /** Most pixels: longer words are cut. */
  most?: number;
}

export function words(x: number, y: number, text: string, w: Words = {}): string {
  const size = w.size ?? 14;
  const cut = w.most === undefined ? text : fitted(text, w.most, size, w.weight);
  return `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="${size}" fill="${w.fill ?? 'var(--ink)'}"${w.weight ? ` font-weight="${w.weight}"` : ''}${w.end ? ' text-anchor="end"' : w.middle ? ' text-anchor="middle"' : ''}>${escaped(cut)}</text>`;
}

export function bar(x: number, y: number, width: number, height: number, fill: string): string {
  return `<rect x="${x.toFixed(1)}" y="${y.toFixed(1)}" width="${Math.max(0, width).toFixed(1)}" height="${height.toFixed(1)}" rx="2" fill="${fill}"/>`;
}

export function stroke(x1: number, y1: number, x2: number, y2: number, colour: string, width = 1, dashes = ''): string {
  return `<line x1="${x1.toFixed(1)}" y1="${y1.toFixed(1)}" x2="${x2.toFixed(1)}" y2="${y2.toFixed(1)}" stroke="${colour}" stroke-width="${width}"${dashes ? ` stroke-dasharray="${dashes}"` : ''} stroke-linecap="round"/>`;
}
