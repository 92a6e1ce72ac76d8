import { expect, test } from 'vitest';
import { coolByProbe } from './probe.ts';

/** A device that gets faster as it is left alone. */
function warmDevice(perWait: number, start: number) {
  let speed = start;
  return { speed: async () => speed, wait: async () => void (speed += perWait) };
}

test('it waits until the probe is within 3 % of its cold speed, and no longer', async () => {
  const device = warmDevice(2, 90);
  expect(await coolByProbe(100, device.speed, device.wait)).toBe(20_000);
  expect(await coolByProbe(100, device.speed, device.wait)).toBe(0);
});

test('one that never gets there is let go after ten minutes', async () => {
  const device = warmDevice(0, 50);
  expect(await coolByProbe(100, device.speed, device.wait)).toBe(600_000);
});

test('a stop during the wait ends it', async () => {
  await expect(
    coolByProbe(
      100,
      async () => 1,
      () => Promise.reject(new Error('stopped')),
    ),
  ).rejects.toThrow('stopped');
});
