import { expect, test } from 'vitest';
import suitesFile from '../suites.json';
import { climb, named, plays, STEPS } from './steps.ts';

const smooth = { frames: 300, dropped: 0, late: 0 };

test('one frame in a hundred is too many, counting those that came late', () => {
  expect(plays({ frames: 300, dropped: 1, late: 1 })).toBe(true);
  expect(plays({ frames: 300, dropped: 2, late: 1 })).toBe(false);
  expect(plays({ frames: 0, dropped: 0, late: 0 })).toBe(false);
});

test('the ladder ends at the first step that does not play, and heavier ones are not tried', async () => {
  const played: string[] = [];
  const result = await climb(STEPS, async (step) => {
    played.push(named(step));
    return step.height < 1080 ? smooth : { ...smooth, dropped: 40 };
  });
  expect(result.position).toBe(4);
  expect(played).toEqual(['360p at 30', '360p at 60', '720p at 30', '720p at 60', '1080p at 30']);
});

test('what cannot be encoded ends it as well; all that plays is the top', async () => {
  expect((await climb(STEPS, async (step) => (step.fps === 60 ? null : smooth))).position).toBe(1);
  expect((await climb(STEPS, async () => smooth)).position).toBe(STEPS.length);
  expect((await climb(STEPS, async () => null)).position).toBe(0);
});

test('the choices of the metric are the steps, in their order', () => {
  const metrics = suitesFile.suites.flatMap((s) => s.tests as { key: string; metrics: { choices?: string[] }[] }[]).filter((t) => t.key.startsWith('video-play-')).map((t) => t.metrics[0]!);
  expect(metrics.length).toBeGreaterThan(0);
  for (const metric of metrics) expect(metric.choices).toEqual(STEPS.map(named));
});
