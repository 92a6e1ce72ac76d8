import { describe, expect, test } from 'vitest';
import * as format from './format.ts';

test.each([
  [388.1, '388.1'],
  [1540.4, '1\u202f540'],
  [3310, '3\u202f310'],
  [0.012345, '0.01235'],
  [-5.5, '−5.5'],
  [12, '12'],
  [10, '10'],
  [2.5, '2.5'],
  [12.004, '12.00'],
  [0, '0'],
  [1234567, '1\u202f234\u202f567'],
  [Number.NaN, '–'],
  [Infinity, '–'],
])('%f reads %s', (value, text) => {
  expect(format.number(value)).toBe(text);
});

test.each([
  [100, '100'],
  [149.4, '149'],
  [99.6, '100'],
  [71.26, '71.3'],
  [0.04, '0.04'],
  [1234.4, '1\u202f234'],
])('index %f reads %s', (value, text) => {
  expect(format.index(value)).toBe(text);
});

test.each([
  [400, '0 s'],
  [40_000, '40 s'],
  [180_000, '3 min'],
  [4_800_000, '80 min'],
  [6_600_000, '1 h 50 min'],
])('%i ms is %s', (ms, text) => {
  expect(format.duration(ms)).toBe(text);
});

test('a countdown never goes below nothing', () => {
  expect(format.countdown(599_100)).toBe('9:59');
  expect(format.countdown(9_000)).toBe('0:09');
  expect(format.countdown(-5)).toBe('0:00');
});

test('classes read as a sentence', () => {
  expect(format.classes([])).toBe('every class of device');
  expect(format.classes(['TABLET'])).toBe('tablets');
  expect(format.classes(['BOARD', 'DESKTOP', 'MINI'])).toBe('desktops, minis and boards');
});

test('a place is one number or a span', () => {
  expect(format.place(4, 4, 4)).toBe('4');
  expect(format.place(2, 2, 3)).toBe('2 (2 to 3)');
});

test('a price keeps all its digits', () => {
  expect(format.price(12_999, 'EUR')).toBe('12\u202f999 EUR');
  expect(format.price(549, 'EUR')).toBe('549 EUR');
  expect(format.price(89.5, 'EUR')).toBe('89.50 EUR');
});

test.each([
  [40, 's', 1, '40 s'],
  [42.6, 's', 0.1, '42.6 s'],
  [388.123, 'ops/s', 0.01, '388.1 ops/s'],
  [1310, 'MB/s', 1, '1\u202f310 MB/s'],
  [3310, 'MB/s', 0, '3\u202f310 MB/s'],
  [0.5, '1', 0.5, '0.5'],
])('%f %s read to %f is %s', (value, unit, resolution, text) => {
  expect(format.quantity(value, unit, resolution)).toBe(text);
});

test('a count has no decimals', () => {
  expect([0, 9, 10, 976, 1000, 12345].map(format.count)).toEqual(['0', '9', '10', '976', '1\u202f000', '12\u202f345']);
});

test('how a fact changed is a factor, a shift or an order', () => {
  expect(format.factStep({ how: 'RATIO', amount: 2 }, 'By')).toBe('× 2');
  expect(format.factStep({ how: 'SHIFT', amount: 1.5 }, 'Cel')).toBe('+1.5 °C');
  expect(format.factStep({ how: 'SHIFT', amount: -1.5 }, 'Cel')).toBe('−1.5 °C');
  expect(format.factStep({ how: 'NEWER' }, '')).toBe('newer');
  expect(format.factStep({ how: 'OTHER' }, '')).toBe('');
  expect(format.percentOf(0.617)).toBe('61.7\u00a0%');
});

describe('values of every kind', () => {
  test('says a check and a choice in words', () => {
    expect(format.reading(1, { kind: 'CHECK', unit: '1' })).toBe('pass');
    expect(format.reading(0, { kind: 'CHECK', unit: '1' })).toBe('fail');
    expect(format.reading(2, { kind: 'CHOICE', unit: '1', choices: ['720p', '1080p'] })).toBe('1080p');
    expect(format.reading(9, { kind: 'CHOICE', unit: '1', choices: ['720p'] })).toBe('9');
    expect(format.reading(41.25, { kind: 'DURATION', unit: 's' }, 0.01)).toBe('41.25 s');
  });

  test.each([
    [65536, '64 KiB'],
    [16777216, '16 MiB'],
    [32_000_000, '32 MB'],
    [1_000_000, '1 MB'],
    [1000, '1 kB'],
    [1536, '1.5 KiB'],
    [1500, '1.5 kB'],
    [2 ** 30, '1 GiB'],
    [512e9, '512 GB'],
    [4096, '4 KiB'],
    [100, '100 B'],
    [0, '0 B'],
  ])('%i bytes are %s', (bytes, text) => {
    expect(format.sizeInBytes(bytes)).toBe(text);
  });

  test('says why a reading is marked', () => {
    expect(format.markReason({ kind: 'HELD', rate: 60 })).toContain('60 Hz');
    expect(
      new Set(
        ['STRAY', 'HELD', 'TOO_SHORT', 'WARM_UP', 'DISTURBED', 'THROTTLED', 'ANOTHER_DAY'].map((kind) =>
          format.markReason({ kind }),
        ),
      ).size,
    ).toBe(7);
  });
});
