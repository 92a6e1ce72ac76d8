import { seeded } from '../random.ts';
import { WrongAnswer } from '../types.ts';
import type { PageWork } from './frame.ts';

/** Layout of a long document: paragraphs, headings and tables, flowing anew at five widths. */
const PARAGRAPHS = 120;
const WORDS = 40;
const LINE = 22;
const GAP = 6;
const WIDTHS = [860, 620, 480, 740, 360];
const STEMS = ['sedge', 'heron', 'tarn', 'willow', 'marsh', 'godwit', 'a', 'of', 'under', 'counted', 'in', 'the', 'northern', 'reedbed'];

export const STYLE = `
  * { box-sizing: border-box; margin: 0; padding: 0 }
  body { font: 15px/1.3 serif }
  h2 { height: 40px; overflow: hidden }
  p { font-size: 0 }
  p span { display: inline-block; height: ${LINE}px; margin-right: ${GAP}px; overflow: hidden; font-size: 15px; line-height: ${LINE}px; vertical-align: top; white-space: nowrap }
  table { width: 100%; table-layout: fixed; border-collapse: collapse }
  td { height: 24px; overflow: hidden; white-space: nowrap; font-size: 14px; line-height: 20px; padding: 2px 4px }`;

interface Paragraph {
  words: { text: string; width: number }[];
  table: boolean;
}

export function makeReport(seed: number): Paragraph[] {
  const random = seeded(seed);
  return Array.from({ length: PARAGRAPHS }, (_, i) => ({
    table: i % 12 === 5,
    words: Array.from({ length: WORDS }, () => {
      const text = STEMS[Math.floor(random() * STEMS.length)]!;
      // Each word has its width in pixels, so that lines break at the same places whatever the fonts are.
      return { text, width: 12 + text.length * 8 + Math.floor(random() * 4) };
    }),
  }));
}

/** The known answer: height of the report at a width, by putting words into lines one after the other. */
export function expectedHeight(report: readonly Paragraph[], width: number): number {
  let height = 0;
  for (const { words, table } of report) {
    if (table) {
      height += (words.length / 4) * 24;
      continue;
    }
    let lines = 1;
    let used = 0;
    for (const word of words) {
      const wide = word.width + GAP;
      if (used + wide > width) {
        lines++;
        used = 0;
      }
      used += wide;
    }
    height += lines * LINE;
  }
  return height + Math.ceil(report.length / 20) * 40;
}

export function prepare(body: HTMLElement): PageWork {
  const document = body.ownerDocument;
  const report = makeReport(1903);
  const wanted = WIDTHS.map((width) => expectedHeight(report, width));
  const make = (parent: HTMLElement, tag: string, text = '') => {
    const element = document.createElement(tag);
    element.textContent = text;
    parent.append(element);
    return element;
  };
  return {
    perRound: WIDTHS.length,
    work(rounds) {
      for (let i = 0; i < rounds; i++) {
        const page = make(body, 'article');
        report.forEach(({ words, table }, n) => {
          if (n % 20 === 0) make(page, 'h2', `Survey ${n / 20 + 1}`);
          if (table) {
            const rows = make(make(page, 'table'), 'tbody');
            for (let r = 0; r < words.length; r += 4) {
              const row = make(rows, 'tr');
              words.slice(r, r + 4).forEach((word) => make(row, 'td', word.text));
            }
          } else {
            const paragraph = make(page, 'p');
            words.forEach((word) => (make(paragraph, 'span', word.text).style.width = `${word.width}px`));
          }
        });
        WIDTHS.forEach((width, w) => {
          page.style.width = `${width}px`;
          if (page.offsetHeight !== wanted[w]) throw new WrongAnswer(`The report is ${page.offsetHeight} pixels high at a width of ${width} and should be ${wanted[w]}.`);
        });
        page.remove();
      }
    },
  };
}
