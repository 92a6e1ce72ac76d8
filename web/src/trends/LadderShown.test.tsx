// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { LadderShown } from './LadderShown.tsx';
import type { Trends } from './trends.ts';

afterEach(cleanup);

const LADDER = {
  along: { label: 'Power limit', unit: 'W', order: 'QUANTITY' },
  materiality: 3,
  steps: [
    { key: 'a', label: '10 W' },
    { key: 'b', label: '20 W' },
    { key: 'c', label: '30 W' },
  ],
  sides: [
    {
      metric: { id: 1, name: 'Ten loops', unit: '1', kind: 'CHECK', choices: [] },
      points: [
        { step: 0, value: 1, runs: 1 },
        { step: 2, value: 0, runs: 1 },
      ],
    },
  ],
  ladder: {
    best: [1, 1.2, 1.2],
    knee: 1,
    gains: [
      { from: 0, to: 1, percent: 20, perUnit: 2 },
      { from: 1, to: 2, percent: -1.5, perUnit: -0.15 },
    ],
    perWatt: { power: 'Draw', ratios: [1, 0.6, null] },
  },
} as unknown as Trends;

test('each rung says what it brings and costs, what it does not know, and where the knee is', () => {
  render(<LadderShown trends={LADDER} />);
  expect(screen.getByText('Beyond 20 W no step brings 3 % more over all tests.')).toBeTruthy();
  const rows = screen.getAllByRole('row').slice(1);
  const cells = (at: number) =>
    within(rows[at]!)
      .getAllByRole('cell')
      .map((c) => c.textContent);
  expect(cells(0)).toEqual(['10 W', '1.000×', '–', '–', '1.000×', 'pass']);
  expect(cells(1)).toEqual(['20 W the knee', '1.200×', '+20 %', '+2 %', '0.600×', '–']);
  expect(cells(2)).toEqual(['30 W', '1.200×', '−1.5 %', '−0.15 %', '–', 'fail']);
});

test('without a power, or without steps along a quantity, nothing is made up', () => {
  const { container } = render(<LadderShown trends={{ ...LADDER, ladder: undefined }} />);
  expect(container.textContent).toBe('');
  render(<LadderShown trends={{ ...LADDER, ladder: { ...LADDER.ladder!, knee: undefined, perWatt: undefined } }} />);
  expect(screen.queryByText('Work per watt')).toBeNull();
  expect(screen.getByText('Every step up to the last one brings what matters.')).toBeTruthy();
});
