/** A point that may carry a label. */
export interface Labelled {
  x: number;
  y: number;
  text: string;
  /** Higher comes first where there is no room for all. */
  weight: number;
}
export interface PlacedLabel {
  of: number;
  x: number;
  y: number;
  anchor: 'start' | 'end' | 'middle';
}
interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const [HEIGHT, PER_LETTER, POINT] = [14, 6.4, 6];

/** Puts labels right, left, above or below their points where they touch neither a point nor another label; the rest have none. */
export function placeLabels(points: readonly Labelled[], width: number, height: number): PlacedLabel[] {
  const taken: Box[] = points.map((p) => ({
    left: p.x - POINT,
    right: p.x + POINT,
    top: p.y - POINT,
    bottom: p.y + POINT,
  }));
  const placed: PlacedLabel[] = [];
  for (const i of points.map((_, k) => k).sort((a, b) => points[b]!.weight - points[a]!.weight || a - b)) {
    const p = points[i]!;
    const long = p.text.length * PER_LETTER;
    const tries: (PlacedLabel & Box)[] = [
      {
        of: i,
        x: p.x + 9,
        y: p.y + 4,
        anchor: 'start',
        left: p.x + 8,
        right: p.x + 9 + long,
        top: p.y - HEIGHT / 2,
        bottom: p.y + HEIGHT / 2,
      },
      {
        of: i,
        x: p.x - 9,
        y: p.y + 4,
        anchor: 'end',
        left: p.x - 9 - long,
        right: p.x - 8,
        top: p.y - HEIGHT / 2,
        bottom: p.y + HEIGHT / 2,
      },
      {
        of: i,
        x: p.x,
        y: p.y - 9,
        anchor: 'middle',
        left: p.x - long / 2,
        right: p.x + long / 2,
        top: p.y - 9 - HEIGHT,
        bottom: p.y - 8,
      },
      {
        of: i,
        x: p.x,
        y: p.y + 19,
        anchor: 'middle',
        left: p.x - long / 2,
        right: p.x + long / 2,
        top: p.y + 8,
        bottom: p.y + 9 + HEIGHT,
      },
    ];
    const fits = tries.find(
      (t) =>
        t.left >= 0 &&
        t.right <= width &&
        t.top >= 0 &&
        t.bottom <= height &&
        taken.every((o, k) => k === i || t.right < o.left || t.left > o.right || t.bottom < o.top || t.top > o.bottom),
    );
    if (fits) {
      taken.push(fits);
      placed.push({ of: i, x: fits.x, y: fits.y, anchor: fits.anchor });
    }
  }
  return placed;
}
