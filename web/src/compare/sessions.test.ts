import { expect, test } from 'vitest';
import { sessionsOf } from './sessions.ts';

const reading = (sessionId: number, value: number, finishedAt: string, more: object = {}) => ({
  id: value,
  sessionId,
  configurationId: 1,
  value,
  resolution: 1,
  runNumber: 1,
  finishedAt,
  conditions: ['on mains'],
  marks: [],
  evidence: 0,
  ...more,
});

test('readings are put together by session, the oldest first, without what is set aside', () => {
  const side = {
    readings: [
      reading(7, 90, '2026-11-20T10:00:00Z'),
      reading(3, 100, '2026-11-18T10:00:00Z'),
      reading(3, 400, '2026-11-18T10:05:00Z', { conditions: ['recording the screen'] }),
      reading(3, 9, '2026-11-18T10:06:00Z', { asideReason: 'wrong cable' }),
    ],
  };
  const ratios = sessionsOf(side, 'RATIO');
  expect(ratios.map((s) => [s.id, s.runs])).toEqual([
    [3, 2],
    [7, 1],
  ]);
  expect(ratios[0]!.mean).toBeCloseTo(200, 9);
  expect(ratios[0]!.conditions).toEqual(['on mains', 'recording the screen']);
  expect(sessionsOf(side, 'DIFFERENCE')[0]!.mean).toBeCloseTo(250, 9);
  expect(sessionsOf({ readings: [] }, 'RATIO')).toEqual([]);
});
