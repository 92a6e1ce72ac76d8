/** Where nothing can measure, a letter is about so wide as a share of its size. */
const GUESSED = 0.5;

let context: OffscreenCanvasRenderingContext2D | null | undefined;

/** How wide words are in the program's own font, in the units of their size. */
export function textWidth(words: string, size: number, weight = 400): number {
  context ??= typeof OffscreenCanvas === 'undefined' ? null : new OffscreenCanvas(1, 1).getContext('2d');
  if (!context) return words.length * size * GUESSED;
  context.font = `${weight} ${size}px 'Source Sans 3 Variable', 'Source Sans 3', sans-serif`;
  return context.measureText(words).width;
}

/** The words where there is room for them, else as many of them as there is room for, and an ellipsis. */
export function fitted(words: string, most: number, size: number, weight = 400): string {
  if (textWidth(words, size, weight) <= most) return words;
  let [fits, over] = [0, words.length];
  while (fits < over - 1) {
    const half = (fits + over) >> 1;
    if (textWidth(`${words.slice(0, half).trimEnd()}…`, size, weight) <= most) fits = half;
    else over = half;
  }
  return `${words.slice(0, Math.max(1, fits)).trimEnd()}…`;
}
