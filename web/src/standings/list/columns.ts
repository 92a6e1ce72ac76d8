/** Widths of the standings' columns in pixels; the rails share what the words leave. */
export interface Columns {
  template: string;
  overall: number;
  /** Width of a part's rail, and how many of the parts have one; the largest ones where not all fit. */
  part: number;
  parts: number;
  /** Too narrow for a rail beside the words: it goes below them. */
  narrow: boolean;
}

const PLACE = 84;
/** Below this the overall rail is under the words. */
export const NARROW = 560;
const NARROW_PLACE = 64;
const INDEX = 76;
const COVERED = 58;
const GAP = 10;
const LEAST_NAME = 150;
const MOST_NAME = 250;
const LEAST_PART = 58;
const MOST_PART = 118;
const LEAST_OVERALL = 190;
const MOST_PARTS = 9;

/**
 * On a narrow screen the parts' rails go first, then the overall one gets what is left.
 *
 * @param compact one line a row, so the name shares it with the configuration
 */
export function columns(width: number, parts: number, compact = false): Columns {
  if (width < NARROW) {
    return {
      template: `${NARROW_PLACE}px minmax(0, 1fr) ${INDEX}px`,
      overall: Math.max(120, width - NARROW_PLACE - INDEX - 2 * GAP),
      part: 0,
      parts: 0,
      narrow: true,
    };
  }
  const name = Math.round(
    compact
      ? Math.min(320, Math.max(LEAST_NAME, width * 0.24))
      : Math.min(MOST_NAME, Math.max(LEAST_NAME, width * 0.19)),
  );
  const rest = width - PLACE - name - INDEX - COVERED;
  const fit = Math.floor((rest - GAP * 4 - LEAST_OVERALL) / (LEAST_PART + GAP));
  const shown = Math.max(0, Math.min(parts, MOST_PARTS, fit));
  const part = Math.min(MOST_PART, Math.floor((rest - GAP * (shown + 4) - LEAST_OVERALL) / Math.max(1, shown)));
  const overall = Math.max(80, Math.floor(rest - GAP * (shown + 4) - shown * part));
  const tracks = [PLACE, name, INDEX, overall, ...Array.from({ length: shown }, () => part), COVERED];
  return {
    template: tracks.map((t) => `${t}px`).join(' '),
    overall,
    part: shown > 0 ? part : 0,
    parts: shown,
    narrow: false,
  };
}
