import { expect, test } from 'vitest';
import { byKind, together } from './tracks.ts';

const track = (kind: string, name: string, values: number[], unit = 'x') => ({ kind, name, unit, stepMs: 500, values });

test('tracks of one kind stand together, what matters first, and what never happened nowhere', () => {
  const kinds = byKind([
    track('fan', 'Fan', [900]),
    track('clock', 'Core 0', [1]),
    track('throttle', 'Held back', [0, 0]),
    track('temperature', 'Package', [50]),
    track('clock', 'Core 1', [2]),
    track('whatever', 'Else', [1]),
  ]);
  expect(kinds.map((k) => [k.kind, k.tracks.length])).toEqual([
    ['temperature', 1],
    ['clock', 2],
    ['fan', 1],
    ['whatever', 1],
  ]);
  expect(byKind([track('throttle', 'Held back', [0, 2])])).toHaveLength(1);
});

test('together, the hottest speaks, powers add up, and clocks have a mean', () => {
  const both = [track('', 'a', [1, 5, 9]), track('', 'b', [3, 2])];
  expect(together({ kind: 'temperature', tracks: both }).values).toEqual([3, 5]);
  expect(together({ kind: 'power', tracks: both }).values).toEqual([4, 7]);
  expect(together({ kind: 'clock', tracks: both }).values).toEqual([2, 3.5]);
});
