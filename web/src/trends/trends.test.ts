import { expect, test } from 'vitest';
import { partingWords } from './divergence-words.ts';
import type { Together } from './TogetherShown.tsx';
import { linesOf } from './trend-lines.ts';
import { apart, changedWords, movers, places, unbroken, withRoom, type Step, type Trends } from './trends.ts';

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

test('of many steps only those are named that have room', () => {
  expect(withRoom([0, 30, 64, 100, 130], 64)).toEqual([0, 2, 4]);
  expect(withRoom([], 64)).toEqual([]);
});

test('groups are folded only where there are several, and the whole comes last', () => {
  const overall = { points: [{ step: 0, ratio: 1 }], steps: [{ to: 1, ratio: 1.1, marked: true }], apart: [] };
  const trends = {
    lines: [{ metric: { id: 7, name: 'Weir' }, points: [], steps: [{ to: 2, ratio: 0.9, marked: true }] }],
    groups: [
      { group: 'PROCESSOR', tests: 1, overall },
      { group: 'STORAGE', tests: 2, overall },
    ],
    overall,
  } as unknown as Trends;
  expect(linesOf(trends, false).map((l) => l.name)).toEqual(['Weir', 'Overall']);
  expect(linesOf(trends, false)[0]!.marks).toEqual([{ step: 2, up: false }]);
  expect(linesOf(trends, true).map((l) => l.name)).toEqual(['Processor, 1 test', 'Storage, 2 tests', 'Overall']);
  expect(linesOf({ ...trends, groups: trends.groups.slice(0, 1) }, true).map((l) => l.name)).toEqual([
    'Weir',
    'Overall',
  ]);
  expect(linesOf({ ...trends, overall: undefined }, false)).toHaveLength(1);
});

const line = (unit: string | undefined, model = 'Cob') => ({ modelId: 1, maker: 'Ostler', model, unit });
const parted = (partings: unknown[], lines = [line('First'), line('Second')]) =>
  partingWords({
    lines,
    partings,
    along: { order: 'VERSION' },
    steps: ['6.2', '6.9', '6.12'].map((label) => ({ label })),
  } as unknown as Together);
const at = (step: number, ratio: number, told: boolean) => ({
  step,
  ratio,
  low: ratio - 0.02,
  high: ratio + 0.02,
  told,
});

test('where lines part is said from the first step they share, and what became of it', () => {
  expect(parted([{ line: 1, common: 3, from: 0, apart: at(1, 1.1, true), last: at(2, 1.01, false) }])).toEqual([
    'Second parts from First at 6.9: since 6.2 it has come to 1.100× of it (1.080× to 1.120×); 1.010× at 6.12, where they can no longer be told apart.',
  ]);
  expect(parted([{ line: 1, common: 2, from: 1, last: at(2, 1.01, false) }])[0]).toBe(
    'Second goes with First since 6.9, as far as can be told: 1.010× (0.990× to 1.030×) at 6.12.',
  );
  expect(parted([{ line: 1, common: 1, from: 1 }])[0]).toMatch(/one step only/);
  expect(parted([{ line: 1, common: 0 }])[0]).toBe('Second has no step in common with First.');
});
