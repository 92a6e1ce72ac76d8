import { ARTICLE_WIDTH, svgOf } from './drawn.ts';

/** Where the words and the marks of a drawing's rows stand. */
export interface RowLayout {
  narrow: boolean;
  width: number;
  /** Where marks begin, and how far they reach. */
  left: number;
  room: number;
  /** Height of a row. */
  line: number;
  /** The most that a name takes. */
  nameRoom: number;
  /** Baseline of a row's words. */
  text: (i: number) => number;
  /** The middle of its marks. */
  middle: (i: number) => number;
}

const PHONE_WIDTH = 350;
const PHONE_LINE = 46;
const VALUE_ROOM = 86;

/** On a page: name, marks and value beside one another. @param right room for the value */
export function pageRows(left: number, right: number, line: number): RowLayout {
  return {
    narrow: false,
    width: ARTICLE_WIDTH,
    left,
    room: ARTICLE_WIDTH - left - right,
    line,
    nameRoom: left - 12,
    text: (i) => i * line + line / 2 + 5,
    middle: (i) => i * line + line / 2,
  };
}

/** On a phone: name and value in a line, the marks below them over the whole width. */
export const PHONE_ROWS: RowLayout = {
  narrow: true,
  width: PHONE_WIDTH,
  left: 8,
  room: PHONE_WIDTH - 16,
  line: PHONE_LINE,
  nameRoom: PHONE_WIDTH - VALUE_ROOM,
  text: (i) => i * PHONE_LINE + 16,
  middle: (i) => i * PHONE_LINE + 31,
};

/** The same rows in both forms, from one description. @param foot height below the rows */
export function bothForms(
  page: RowLayout,
  rows: number,
  foot: number,
  draw: (layout: RowLayout, height: number) => string[],
): { svg: string; narrow: string; width: number; height: number } {
  const drawn = (layout: RowLayout) => {
    const height = rows * layout.line + foot;
    return svgOf(layout.width, height, draw(layout, height));
  };
  return { svg: drawn(page), narrow: drawn(PHONE_ROWS), width: page.width, height: rows * page.line + foot };
}
