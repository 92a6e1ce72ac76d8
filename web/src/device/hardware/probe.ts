import { loadWorkload } from '../../workloads/registry.ts';

/** The test whose speed tells whether a device has cooled. */
const PROBE = 'weir-hash-one';
const PROBE_MS = 200;
/** Cold again. */
const NEAR = 0.97;
const BETWEEN_MS = 5_000;
const LONGEST_MS = 600_000;

/**
 * Waits until a device is as fast as it was cold, within 3 %, looking every five seconds for ten minutes at most.
 *
 * @param speed of the probe, now
 * @returns how long it took, in ms
 */
export async function coolByProbe(
  cold: number,
  speed: () => Promise<number>,
  wait: (ms: number) => Promise<void>,
): Promise<number> {
  let waited = 0;
  while (waited < LONGEST_MS && (await speed()) < NEAR * cold) {
    await wait(BETWEEN_MS);
    waited += BETWEEN_MS;
  }
  return waited;
}

/** Speed of the probe on this device; 1 where it cannot run here, so that nobody waits for it. */
export async function probeSpeed(clockResolutionMs: number, signal: AbortSignal, host: HTMLElement): Promise<number> {
  const workload = await loadWorkload(PROBE);
  if (!workload || (await workload.obstacle())) return 1;
  return (await workload.run({ timedMs: PROBE_MS, clockResolutionMs, signal, host })).rate;
}
