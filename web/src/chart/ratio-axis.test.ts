import { describe, expect, test } from 'vitest';
import { ratioAxis } from './ratio-axis.ts';
import { times } from '../format/ratio.ts';

describe('the axis of ratios', () => {
  test('same is in the middle and a gain lies as far from it as the loss that undoes it', () => {
    const axis = ratioAxis([1.3, 0.9], 1.03, 300);
    expect(axis.x(1)).toBe(150);
    expect(axis.x(1.25) - 150).toBeCloseTo(150 - axis.x(1 / 1.25), 9);
    expect(axis.x(1.3)).toBeGreaterThan(axis.x(1.1));
  });

  test('everything fits, unless it is so far out that the rest could not be read', () => {
    const axis = ratioAxis([0.5, 2.4, 1.02], 1.03, 300);
    expect(axis.x(2.4)).toBeLessThan(300);
    expect(axis.outside(2.4)).toBe(false);
    const wide = ratioAxis([900, 1.1], 1.03, 300);
    expect(wide.outside(900)).toBe(true);
    expect(wide.x(900)).toBeLessThanOrEqual(300);
  });

  test('hardly any difference does not fill the axis, and the band that is shaded fits', () => {
    expect(ratioAxis([1.0001], 1.01, 300).x(1.0001) - 150).toBeLessThan(1);
    const band = ratioAxis([1.0001], 1.5, 300);
    expect(band.outside(1.5)).toBe(false);
  });

  test('ticks come in pairs with room for their words', () => {
    const { ticks, x } = ratioAxis([3], 1.03, 400);
    expect(ticks.length % 2).toBe(0);
    const places = [...ticks, 1].map(x).sort((a, b) => a - b);
    places.slice(1).forEach((p, i) => expect(p - places[i]!).toBeGreaterThan(40));
  });

  test('what is no ratio does not break it', () => {
    expect(ratioAxis([NaN, Infinity, 0, -1], 1.03, 300).x(1)).toBe(150);
    expect(times(1.0499)).toBe('1.05×');
    expect(times(123.4)).toBe('123×');
  });
});
