import { expect, test } from 'vitest';
import { aboutMinutes, inAll, inMinutes } from './about.ts';

const item = (runs: number, pauseMs: number, byHand = false) => ({
  id: 1,
  key: 'k',
  name: 'n',
  summary: '',
  metric: 'rate',
  runs,
  pauseMs,
  byHand,
});

test('runs, pauses and what is around a run are counted; what is done by hand is not', () => {
  expect(aboutMinutes({ timedMs: 3_000, tests: [item(10, 900)] })).toBe(1);
  expect(aboutMinutes({ timedMs: 3_000, tests: [item(30, 900), item(30, 900)] })).toBe(6);
  expect(aboutMinutes({ timedMs: 3_000, tests: [item(30, 900), item(30, 900, true)] })).toBe(3);
  expect(aboutMinutes({ timedMs: 3_000, tests: [{ ...item(1, 0), timedMs: 600_000 }] })).toBe(10);
  expect(aboutMinutes({ timedMs: 20, tests: [] })).toBe(1);
});

test('one minute is said as one', () => {
  expect(inMinutes(1)).toBe('about a minute');
  expect(inMinutes(12)).toBe('about 12 minutes');
});

test('nobody knows before how long a battery lasts', () => {
  const battery = { ...item(1, 0), key: 'battery-reading' };
  expect(inAll({ timedMs: 3_000, tests: [battery] })).toBe('as long as the battery takes');
  expect(inAll({ timedMs: 3_000, tests: [battery, item(30, 900)] })).toBe(
    'about 3 minutes and as long as the battery takes',
  );
  expect(inAll({ timedMs: 3_000, tests: [item(30, 900)] })).toBe('about 3 minutes in all');
});
