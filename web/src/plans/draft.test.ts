import { expect, test } from 'vitest';
import { draftOf, moved, newItem, numberOf, suitesOf, withItem, type PlanItem } from './draft.ts';

const items: PlanItem[] = [
  { testId: 1, nice: false },
  { testId: 2, nice: true, runs: 5 },
  { testId: 3, nice: false },
];

test('items move one place and stay at the ends', () => {
  expect(moved(items, 0, 1).map((i) => i.testId)).toEqual([2, 1, 3]);
  expect(moved(items, 2, -1).map((i) => i.testId)).toEqual([1, 3, 2]);
  expect(moved(items, 0, -1)).toEqual(items);
  expect(moved(items, 2, 1)).toEqual(items);
  expect(items.map((i) => i.testId)).toEqual([1, 2, 3]);
});

test('a value is set, and taken away again', () => {
  expect(withItem(items, 0, { runs: 7 })[0]).toEqual({ testId: 1, nice: false, runs: 7 });
  expect(withItem(items, 1, { runs: undefined })[1]).toEqual({ testId: 2, nice: true });
  expect(withItem(items, 1, { runs: undefined })[0]).toBe(items[0]);
});

test('a copy has another name, a change the same', () => {
  const plan = {
    id: 4,
    name: 'Field day',
    runs: 3,
    timedMs: 100,
    pauseMs: 0,
    stopOnFailure: true,
    coolByProbe: true,
    shuffleSeed: 77,
    builtIn: true,
    items,
  };
  expect(draftOf(plan, true).name).not.toBe('Field day');
  expect(draftOf(plan, false)).toEqual({
    name: 'Field day',
    runs: 3,
    timedMs: 100,
    pauseMs: 0,
    stopOnFailure: true,
    coolByProbe: true,
    shuffleSeed: 77,
    items,
  });
});

test('numbers are read with point or comma', () => {
  expect(numberOf('38,5')).toBe(38.5);
  expect(numberOf('')).toBeUndefined();
  expect(numberOf('warm')).toBeUndefined();
});

test('a test in a loop comes with its five minutes, once', () => {
  expect(newItem(7, 'battery-reading')).toEqual({ testId: 7, nice: false, runs: 1 });
  expect(newItem(7, 'network-walk').runs).toBe(1);
  expect(newItem(7, 'network-latency').runs).toBeUndefined();
  expect(newItem(7, 'endurance-reed-bed')).toEqual({ testId: 7, nice: false, runs: 1, timedMs: 300_000 });
  expect(newItem(7, 'reed-bed')).toEqual({ testId: 7, nice: false });
  expect(newItem(7)).toEqual({ testId: 7, nice: false });
});

test('a long plan is told by its suites, in the order they come', () => {
  const of = (suite: string, mode = '') => ({ suite, mode });
  expect(suitesOf([of('Sluice'), of('Weir', 'SIMD'), of('Sluice'), undefined])).toEqual([
    { name: 'Sluice', tests: 2 },
    { name: 'Weir, SIMD', tests: 1 },
    { name: 'tests that are gone', tests: 1 },
  ]);
});
