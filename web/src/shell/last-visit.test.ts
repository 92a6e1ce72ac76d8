// @vitest-environment jsdom
import { beforeEach, expect, test } from 'vitest';
import { noteVisit } from './last-visit.ts';

const HOUR = 3_600_000;
const NOON = Date.UTC(2026, 5, 1, 12);

beforeEach(() => localStorage.clear());

test('a first visit has none before it', () => {
  expect(noteVisit('lab wren', NOON)).toBeUndefined();
  expect(noteVisit('lab wren', NOON + 60_000)).toBeUndefined();
});

test('whoever comes back later hears of what happened since the last visit ended, all the while', () => {
  noteVisit('lab wren', NOON);
  noteVisit('lab wren', NOON + HOUR);
  expect(noteVisit('lab wren', NOON + 20 * HOUR)).toBe(NOON + HOUR);
  expect(noteVisit('lab wren', NOON + 20 * HOUR + 60_000)).toBe(NOON + HOUR);
});

test('somebody else in the same browser has visits of their own, and a clock put back is no visit', () => {
  noteVisit('lab wren', NOON);
  expect(noteVisit('lab avocet', NOON + 9 * HOUR)).toBeUndefined();
  expect(noteVisit('lab wren', NOON - 9 * HOUR)).toBeUndefined();
});

test('what is no visit is none', () => {
  localStorage.setItem('yarrowmark.visit lab wren', '{"seen":"yesterday"}');
  expect(noteVisit('lab wren', NOON)).toBeUndefined();
  localStorage.setItem('yarrowmark.visit lab wren', 'broken');
  expect(noteVisit('lab wren', NOON)).toBeUndefined();
});
