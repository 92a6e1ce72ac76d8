import { expect, test } from 'vitest';
import type { DeviceSeat } from '../seat/api.ts';
import type { Showing } from './run-session.ts';
import { leftMs, progress, progressWords } from './progress.ts';

const tests = [
  { id: 1, runs: 3, byHand: false },
  { id: 2, runs: 2, byHand: true },
  { id: 3, runs: 5, byHand: false },
] as DeviceSeat['tests'];
const at = (id: number, runNumber: number, phase: Showing['phase'] = 'RUNNING') =>
  progress({ tests }, { test: tests.find((t) => t.id === id) ?? null, runNumber, phase } as Showing);

test('runs by hand are not the device’s, and the run going on is not done', () => {
  expect(progress({ tests }, null)).toEqual({ done: 0, total: 8 });
  expect(at(1, 3)).toEqual({ done: 2, total: 8 });
  expect(at(2, 1, 'BY_HAND')).toEqual({ done: 3, total: 8 });
  expect(at(3, 4, 'COOLING')).toEqual({ done: 6, total: 8 });
  expect(at(9, 1, 'DONE')).toEqual({ done: 8, total: 8 });
});

test('what is left is told from the second run on, also after a reload in the middle', () => {
  expect(leftMs({ done: 1, total: 8 }, 0, 9_000)).toBeUndefined();
  expect(leftMs({ done: 4, total: 8 }, 0, 40_000)).toBe(40_000);
  expect(leftMs({ done: 5, total: 8 }, 4, 10_000)).toBeUndefined();
  expect(leftMs({ done: 6, total: 8 }, 4, 10_000)).toBe(10_000);
  expect(progressWords({ done: 4, total: 8 }, 90_000)).toMatch(/^4 of 8 runs, about .+ left$/);
  expect(progressWords({ done: 8, total: 8 }, 0)).toBe('8 of 8 runs');
});
