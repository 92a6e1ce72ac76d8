import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { watchRun } from './watch.ts';

let now = 0;
let set = 0;
const clocks = { now: () => now, date: () => now + set };

/** Lets time pass, with the timer coming as often as it would. */
function pass(ms: number, step = 50) {
  for (let at = 0; at < ms; at += step) {
    now += step;
    vi.advanceTimersByTime(50);
  }
}

beforeEach(() => {
  vi.useFakeTimers();
  now = 0;
  set = 0;
});
afterEach(() => vi.useRealTimers());

test('a run that nothing disturbs says nothing', () => {
  const end = watchRun(true, undefined, clocks);
  pass(4_000);
  expect(end()).toBeNull();
  expect(vi.getTimerCount()).toBe(0);
});

test('a stall is told with its length, also one at the very end', () => {
  const end = watchRun(true, undefined, clocks);
  pass(1_000);
  pass(700, 700);
  pass(1_000);
  expect(end()).toContain('stood still for 0.7 s');
  const other = watchRun(true, undefined, clocks);
  pass(500);
  now += 2_000;
  expect(other()).toContain('2.0 s');
});

test("the page's own work is no stall", () => {
  const end = watchRun(false, undefined, clocks);
  now += 5_000;
  expect(end()).toBeNull();
});

test('power that comes or goes, and a clock that is set', () => {
  const power = Object.assign(new EventTarget(), { charging: true });
  const end = watchRun(false, power, clocks);
  power.charging = false;
  power.dispatchEvent(new Event('chargingchange'));
  set = -3_600_000;
  expect(end()).toMatch(/unplugged.*clock was set/);
  const other = watchRun(false, power, clocks);
  expect(other()).toBeNull();
});
