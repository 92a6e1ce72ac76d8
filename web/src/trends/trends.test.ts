import { expect, test } from 'vitest';
import { apart, changedWords, movers, places, unbroken, type Step, type Trends } from './trends.ts';

test('a line is never drawn through a missing result', () => {
  expect(unbroken([0, 1, 3, 4, 6].map((step) => ({ step }))).map((p) => p.map((q) => q.step))).toEqual([
    [0, 1],
    [3, 4],
    [6],
  ]);
  expect(unbroken([])).toEqual([]);
});

test('steps stand at equal distances, or to scale where each has a number', () => {
  const steps = [{ x: 10 }, { x: 20 }, { x: 50 }] as Step[];
  expect(places(steps, 0, 100, false)).toEqual([0, 50, 100]);
  expect(places(steps, 0, 100, true)).toEqual([0, 25, 100]);
  expect(places([{ x: 10 }, {}] as Step[], 0, 100, true)).toEqual([0, 100]);
  expect(places([{ x: 7 }] as Step[], 5, 100, true)).toEqual([5]);
});

test('labels are moved apart, keep their order and stay inside', () => {
  expect(apart([50, 52, 10], 15, 0, 100)).toEqual([50, 65, 10]);
  expect(apart([95, 96, 97], 15, 0, 100)).toEqual([70, 85, 100]);
  const many = apart(
    Array.from({ length: 40 }, () => 50),
    15,
    0,
    390,
  );
  expect(new Set(many).size).toBe(40);
  expect(Math.min(...many)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...many)).toBeLessThanOrEqual(390.001);
});

test('only what is marked after correction is told of a step, the largest first', () => {
  const line = (name: string, ratio: number, marked: boolean) => ({
    metric: { name },
    steps: [{ from: 0, to: 1, ratio, marked }],
  });
  const trends = { lines: [line('a', 1.02, true), line('b', 0.9, true), line('c', 3, false)] } as unknown as Trends;
  expect(movers(trends, 1).map((m) => m.line.metric.name)).toEqual(['b', 'a']);
  expect(movers(trends, 2)).toEqual([]);
});

test('what also changed is said, and that nothing else did only where that is so', () => {
  const along = { label: 'Kernel', order: 'VERSION' } as Trends['along'];
  const step = (n: number) => ({ changed: Array.from({ length: n }, (_, i) => ({ label: `f${i}` })) }) as Step;
  expect(changedWords(step(0), along, true)).toBe('first');
  expect(changedWords(step(0), along, false)).toBe('nothing but kernel changed');
  expect(changedWords(step(5), along, false)).toBe('also f0, f1, f2 and 2 more');
});
