import { expect, test } from 'vitest';
import { benchTitle, doneWords, newlyDone } from './use-done.ts';
import type { Lane } from './useBench.ts';

const lane = (seatId: number, phase: Lane['phase'], msLeft = 0) =>
  ({ seatId, phase, msLeft, code: 'K', configuration: { maker: 'Petrel', model: `S${seatId}` } }) as Lane;

test('only a device that was seen going on is news when it is done', () => {
  const before = new Map([
    [1, false],
    [2, true],
  ]);
  expect(newlyDone(before, [lane(1, 'DONE'), lane(2, 'DONE'), lane(3, 'DONE')]).map((l) => l.seatId)).toEqual([1]);
  expect(newlyDone(new Map(), [lane(1, 'DONE')])).toEqual([]);
  expect(doneWords([lane(1, 'DONE'), lane(2, 'STOPPED')])).toBe(
    'Petrel S1 has finished its round. Petrel S2 has stopped.',
  );
});

test('the tab counts down to the next one, says who waits, and then how many are done', () => {
  expect(benchTitle([])).toBe('Bench');
  expect(benchTitle([lane(1, 'WAITING'), lane(2, 'JOINED')])).toBe('Bench');
  expect(benchTitle([lane(1, 'RUNNING', 240_000), lane(2, 'COOLING', 60_000), lane(3, 'DONE')])).toBe(
    '60 s left · Bench',
  );
  expect(benchTitle([lane(1, 'BY_HAND', 60_000)])).toBe('1 waiting for you, 60 s left · Bench');
  expect(benchTitle([lane(1, 'DONE'), lane(2, 'STOPPED')])).toBe('2 done · Bench');
});
