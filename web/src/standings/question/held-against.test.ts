import { expect, test } from 'vitest';
import type { Standings } from './ask.ts';
import { againstBase, againstHeading, intervalWords, onRail } from './held-against.ts';

type Row = Standings['rows'][number];
const heat = { scale: 'DIFFERENCE', direction: 'LESS_IS_BETTER', unit: 'Cel' } as Standings['metric'];

test('of a temperature the difference is said, and a rail has the cooler one to the right', () => {
  const row = { merit: 3, difference: { value: -3, low: -4.5, high: -1.5 } } as Row;
  expect(againstBase(row, heat)).toBe('−3 °C');
  expect(intervalWords(row, heat)).toBe('−4.5 °C to −1.5 °C');
  expect(onRail(row, heat)).toEqual({ low: 1.5, high: 4.5 });
  expect(againstHeading({ metric: heat })).toBe('Less that of the typical one');
});

test('without a known spread there is no interval', () => {
  const row = { merit: -2, difference: { value: 2 } } as Row;
  expect(againstBase(row, heat)).toBe('+2 °C');
  expect(intervalWords(row, heat)).toBe('–');
  expect(onRail(row, heat)).toBeUndefined();
});

test('of ratios there is an index', () => {
  const row = { merit: 0, index: 100, low: 90, high: 110 } as Row;
  expect(againstBase(row, undefined)).toBe('100');
  expect(onRail(row, undefined)!.low).toBeCloseTo(Math.log(0.9));
  expect(againstHeading({})).toBe('Index');
});
