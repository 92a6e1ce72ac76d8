import { expect, test } from 'vitest';
import { minutesUntil } from './minutes-until.ts';

const at = (hour: number, minute: number) => new Date(2026, 5, 1, hour, minute);

test.each([
  ['17:00', at(14, 30), 150],
  ['14:31', at(14, 30), 1],
  ['14:30', at(14, 30), 1440],
  ['01:00', at(23, 0), 120],
])('until %s', (time, now, minutes) => {
  expect(minutesUntil(time, now)).toBe(minutes);
});

test.each(['', '17', '25:00', '12:60', 'noon'])('“%s” is no time', (time) => {
  expect(minutesUntil(time, at(12, 0))).toBeUndefined();
});
