/** Widths of the standings' columns in pixels; the rails share what the words leave. */
export interface Columns {
  template: string;
  overall: number;
  group: number;
}

const PLACE = 62;
const INDEX = 76;
const COVERED = 58;
const GAP = 10;
const LEAST_NAME = 150;
const MOST_NAME = 250;
const LEAST_GROUP = 58;
const MOST_GROUP = 118;

/** On a narrow screen the groups' rails go first, then the overall one gets what is left. */
export function columns(width: number, groups: number): Columns {
  const name = Math.round(Math.min(MOST_NAME, Math.max(LEAST_NAME, width * 0.19)));
  const rest = width - PLACE - name - INDEX - COVERED;
  const wanted = Math.floor((rest - GAP * (groups + 4) - 190) / Math.max(1, groups));
  const shown = wanted >= LEAST_GROUP ? groups : 0;
  const group = Math.min(MOST_GROUP, wanted);
  const overall = Math.max(80, Math.floor(rest - GAP * (shown + 4) - shown * group));
  const tracks = [PLACE, name, INDEX, overall, ...Array.from({ length: shown }, () => group), COVERED];
  return { template: tracks.map((t) => `${t}px`).join(' '), overall, group: shown > 0 ? group : 0 };
}
