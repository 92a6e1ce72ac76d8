import { fitted, textWidth } from '../chart/text-width.ts';

/** The page that pictures are drawn on, and its smallest parts. */
export const [WIDTH, HEIGHT] = [1920, 1080];
export type PaintName = 'light' | 'dark' | 'transparent';

/** Colours of a figure that leaves the program, where no style sheet goes with it. */
export interface Paint {
  paper: string | null;
  ink: string;
  quiet: string;
  hair: string;
  band: string;
  gain: string;
  loss: string;
}

const LIGHT: Paint = {
  paper: '#faf8f1',
  ink: '#1d2a24',
  quiet: '#67726a',
  hair: '#dcd9cb',
  band: '#efece0',
  gain: '#2f6247',
  loss: '#74386b',
};
export const PAINTS: Record<PaintName, Paint> = {
  light: LIGHT,
  dark: {
    paper: '#161d19',
    ink: '#ecebe0',
    quiet: '#98a398',
    hair: '#38443d',
    band: '#25302a',
    gain: '#86c29d',
    loss: '#d097c5',
  },
  transparent: { ...LIGHT, paper: null },
};

/** A page of 1920 by 1080 that needs no file beside it. @param paper null for none. @param font as a data address */
export function framed(paper: string | null, font: string, content: readonly string[]): string {
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" font-family="YarrowSans, 'Source Sans 3', sans-serif">`,
    `<style>@font-face{font-family:YarrowSans;src:url(${font});font-weight:200 900}text{font-variant-numeric:tabular-nums lining-nums}</style>`,
    paper ? `<rect width="${WIDTH}" height="${HEIGHT}" fill="${paper}"/>` : '',
    ...content,
    '</svg>',
  ].join('');
}

/** @param most widest in pixels: longer text is cut */
export function text(
  x: number,
  y: number,
  words: string,
  size: number,
  fill: string,
  more: { weight?: number; end?: boolean; most?: number } = {},
): string {
  const cut = more.most === undefined ? words : fitted(words, more.most, size, more.weight);
  return `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="${size.toFixed(1)}" fill="${fill}"${more.weight ? ` font-weight="${more.weight}"` : ''}${more.end ? ' text-anchor="end"' : ''}>${escaped(cut)}</text>`;
}

/** Text in as many lines as it needs. @returns its lines one below the other, and the height they take */
export function lines(
  x: number,
  y: number,
  words: string,
  size: number,
  fill: string,
  most: number,
): { drawn: string; height: number } {
  const rows = words.split(' ').reduce<string[]>((all, word) => {
    const last = all.at(-1);
    if (last !== undefined && textWidth(`${last} ${word}`, size) <= most) all[all.length - 1] = `${last} ${word}`;
    else all.push(word);
    return all;
  }, []);
  return {
    drawn: rows.map((row, i) => text(x, y + i * size * 1.35, row, size, fill)).join(''),
    height: rows.length * size * 1.35,
  };
}

export function rule(x: number, y: number, width: number, colour: string): string {
  return `<path d="M${x.toFixed(1)} ${y.toFixed(1)}h${width.toFixed(1)}" stroke="${colour}"/>`;
}

export function escaped(words: string): string {
  return words.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}
