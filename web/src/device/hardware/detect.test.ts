import { describe, expect, test } from 'vitest';
import { drawnBySoftware, resolutionOf, usualRate } from './detect.ts';

describe('the refresh rate', () => {
  const frames = (ms: number, count = 41) => Array.from({ length: count }, (_, i) => i * ms);
  test.each([
    [16.67, 60],
    [16.9, 60],
    [8.33, 120],
    [6.06, 165],
    [20, 50],
    [11, 90],
    [12.2, 85],
  ])('%f ms a frame is %i Hz', (ms, rate) => {
    expect(usualRate(frames(ms))).toBe(rate);
  });

  test('a few late frames do not move it, and no frames give none', () => {
    const late = frames(16.67);
    for (let i = 30; i < late.length; i++) late[i]! += 40;
    expect(usualRate(late)).toBe(60);
    expect(usualRate([])).toBeNull();
    expect(usualRate([5, 5, 5])).toBeNull();
  });

  test('a busy device that leaves out most frames has the display that it has', () => {
    const times = [0];
    for (let i = 1; i < 41; i++) times.push(times[i - 1]! + (i % 3 === 0 ? 16.67 : 33.34));
    expect(usualRate(times)).toBe(60);
  });

  test('a rate that no display has is not known', () => {
    expect(usualRate(frames(1000 / 22))).toBeNull();
  });
});

test('a phone held upright and sideways has one display', () => {
  expect(resolutionOf(1080, 2400)).toBe('2400x1080');
  expect(resolutionOf(2400.2, 1079.6)).toBe('2400x1080');
});

test('graphics that the processor draws are told from those of a graphics processor', () => {
  expect(drawnBySoftware('ANGLE (Vulkan 1.3.0 (SwiftShader Device (Subzero)))')).toBe(true);
  expect(drawnBySoftware('llvmpipe (LLVM 19.1, 256 bits)')).toBe(true);
  expect(drawnBySoftware('Pellow Heath 12')).toBe(false);
});
