import { describe, expect, it } from 'vitest';
import {
  agrees,
  contradiction,
  plainNumbers,
  references,
  withoutNumber,
  withWords,
  written,
  type LiveNumber,
} from './number-words.ts';

const gain: LiveNumber = {
  forms: ['1.19×', '19 % higher'],
  value: 1.1904,
  amounts: [1.1904, 19.04, 15.99, 0.84, 119.04, 84].flatMap((a) => [a, -a]),
  says: '',
  verdict: 'better',
  rose: false,
};

describe('numbers in a text', () => {
  it('are read with the digits they are written with', () => {
    expect(written('16 % less time')).toEqual({ amount: 16, decimals: 0 });
    expect(written('about 1.190×')).toEqual({ amount: 1.19, decimals: 3 });
    expect(written('1\u202f540 MB/s')).toEqual({ amount: 1540, decimals: 0 });
    expect(written('1,5 kg')).toEqual({ amount: 1.5, decimals: 1 });
    expect(written('far')).toBeUndefined();
  });

  it('agree in whichever way they are said, at their own digits', () => {
    for (const words of ['1.19×', '1.2×', '19 % more', '16 % less time', '0.84 of the time'])
      expect(agrees(words, gain)).toBe(true);
    for (const words of ['1.18×', '1.1905×', '17 % less time', '20 % more']) expect(agrees(words, gain)).toBe(false);
  });

  it('do not agree with their own opposite', () => {
    const turned: LiveNumber = { ...gain, value: 1 / 1.19, forms: ['0.84×'], amounts: [1 / 1.19, 1.19, 84, 119] };
    expect(agrees('1.19×', turned)).toBe(false);
    expect(agrees('0.84×', turned)).toBe(true);
  });

  it('that words say otherwise are pointed out', () => {
    expect(contradiction('is 19 % slower', gain)).toContain('numbers say better');
    expect(contradiction('is 1.19× faster', gain)).toBeUndefined();
    expect(contradiction('needs 16 % more time', gain)).toContain('value is lower');
    expect(contradiction('needs 16 % less time', gain)).toBeUndefined();
    expect(contradiction('is level', gain)).toContain('level');
    expect(contradiction('1.01× faster', { ...gain, verdict: 'neither' })).toContain('too close to call');
  });

  it('are found, changed and taken out where they stand', () => {
    const text =
      'It needs [16 % less time](number:a) and runs [1.13×](number:b) as fast. Under load [24 % more](number:c).';
    expect(references(text).map((r) => [r.id, r.words])).toEqual([
      ['a', '16 % less time'],
      ['b', '1.13×'],
      ['c', '24 % more'],
    ]);
    // What belongs to one number is not held against its neighbour.
    expect(references(text)[1]!.around).not.toContain('less');
    expect(withWords(text, 'b', '1.14×')).toContain('[1.14×](number:b)');
    expect(withWords(text, 'b', '1.14×')).toContain('[16 % less time](number:a)');
    expect(withoutNumber(text, 'c')).toContain('Under load 24 % more.');
  });

  it('that stand for nothing are offered to be linked', () => {
    expect(plainNumbers('At 1.13× and [16 %](number:a), 20 W in 2026').map((n) => n.words)).toEqual([
      '1.13×',
      '20 W',
      '2026',
    ]);
  });
});
