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
export function pageRows(left: number, right: number, line: number, width = ARTICLE_WIDTH): RowLayout {
  return {
    narrow: false,
    width,
    left,
    room: width - left - right,
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

/** A drawing in both forms that is no list of rows: made for each width. */
export function bothWidths(draw: (width: number, narrow: boolean) => { parts: string[]; height: number }): {
  svg: string;
  narrow: string;
  width: number;
  height: number;
} {
  const [page, phone] = [draw(ARTICLE_WIDTH, false), draw(PHONE_WIDTH, true)];
  return {
    svg: svgOf(ARTICLE_WIDTH, page.height, page.parts),
    narrow: svgOf(PHONE_WIDTH, phone.height, phone.parts),
    width: ARTICLE_WIDTH,
    height: page.height,
  };
}

/** The same rows in both forms, from one description. @param foot height below the rows */
export function bothForms(
  page: RowLayout,
  rows: number,
  foot: number,
  draw: (layout: RowLayout, height: number) => string[],
  phone: RowLayout = PHONE_ROWS,
): { svg: string; narrow: string; width: number; height: number } {
  const drawn = (layout: RowLayout) => {
    const height = rows * layout.line + foot;
    return svgOf(layout.width, height, draw(layout, height));
  };
  return { svg: drawn(page), narrow: drawn(phone), width: page.width, height: rows * page.line + foot };
}
