import { expect, test } from 'vitest';
import { placeLabels, type Labelled, type PlacedLabel } from './labels.ts';

function box(points: readonly Labelled[], l: PlacedLabel) {
  const long = points[l.of]!.text.length * 6;
  const left = l.anchor === 'start' ? l.x : l.anchor === 'end' ? l.x - long : l.x - long / 2;
  return { left, right: left + long, top: l.y - 11, bottom: l.y + 2 };
}

test('labels of a crowd neither overlap nor leave the picture', () => {
  let seed = 7;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const points = Array.from({ length: 120 }, (_, i) => ({
    x: 500 * random(),
    y: 300 * random(),
    text: `Model number ${i}`,
    weight: random(),
  }));
  const labels = placeLabels(points, 500, 300);
  expect(labels.length).toBeGreaterThan(8);
  const boxes = labels.map((l) => box(points, l));
  boxes.forEach((a, i) => {
    expect(a.left).toBeGreaterThanOrEqual(0);
    expect(a.right).toBeLessThanOrEqual(500);
    boxes
      .slice(i + 1)
      .forEach((b) => expect(a.right < b.left || b.right < a.left || a.bottom < b.top || b.bottom < a.top).toBe(true));
  });
});

test('the weightiest is named first', () => {
  const points = [
    { x: 100, y: 50, text: 'light', weight: 0 },
    { x: 102, y: 50, text: 'heavy', weight: 1 },
  ];
  expect(placeLabels(points, 200, 100)[0]!.of).toBe(1);
});
