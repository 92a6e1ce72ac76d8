// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { shown } from '../../testing/shown.tsx';
import { CurvesPlot } from './CurvesPlot.tsx';

afterEach(cleanup);

const configuration = (id: number) => ({ id, maker: 'Petrel', model: `S${id}`, name: 'as found' });
const curve = (points: { x: number; y: number }[], ratio?: number) => ({
  points,
  overBase: ratio === undefined ? [] : points.map((p) => ({ x: p.x, ratio })),
  peak: points.at(-1)!,
  nearPeakFrom: points[0]!.x,
  dents: [],
});
const comparison = {
  base: configuration(1),
  sides: [{ configuration: configuration(2) }],
} as unknown as Schemas['Comparison'];
const data = {
  metric: { test: 'Reading by size', unit: 'GB/s', xUnit: 'By', direction: 'MORE_IS_BETTER' },
  sides: [
    {
      configurationId: 1,
      readings: [],
      curve: curve([
        { x: 4096, y: 2 },
        { x: 65536, y: 8 },
      ]),
    },
    {
      configurationId: 2,
      readings: [],
      curve: curve(
        [
          { x: 4096, y: 3 },
          { x: 16384, y: 5 },
          { x: 65536, y: 12 },
        ],
        1.5,
      ),
    },
  ],
} as unknown as Schemas['ComparedMetric'];

test('curves have ticks with units on both axes, and a table with a line for each x', () => {
  shown(<CurvesPlot data={data} comparison={comparison} />);
  const drawing = screen.getByRole('img', { name: 'Curves of Reading by size' });
  expect(drawing.textContent).toContain('4 KiB');
  expect(drawing.textContent).toContain('64 KiB');
  expect(drawing.textContent).toContain('GB/s');
  expect(drawing.textContent).toContain('same');
  const rows = [...document.querySelectorAll('tbody tr')].map((r) => [...r.children].map((c) => c.textContent));
  expect(rows.map((r) => r[0])).toEqual(['4 KiB', '16 KiB', '64 KiB']);
  expect(rows[1]![1]).toBe('–');
  expect(rows[1]![2]).toContain('1.50×');
});
