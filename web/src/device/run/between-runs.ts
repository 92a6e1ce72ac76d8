import { loadWorkload } from '../../workloads/registry.ts';
import { Refused, type DeviceApi, type DeviceTest } from '../seat/api.ts';
import { Control } from './control.ts';
import type { Outbox } from '../seat/outbox.ts';
import { coolByProbe } from '../hardware/probe.ts';
import { Interrupted } from './round.ts';

export const RETRY_MS = 2_000;

const PROBE_LIMIT_MS = 900_000;

/** Waits until the device is as fast as it was cold. What hides the page meanwhile only holds the wait up. */
export async function cooled(
  control: Control,
  outbox: Outbox,
  speed: (signal: AbortSignal) => Promise<number>,
): Promise<void> {
  for (;;) {
    const { signal, release } = control.watch(PROBE_LIMIT_MS, new Error('The probe took too long.'));
    try {
      const cold = await outbox.cold();
      if (cold === null) await outbox.keepCold(await speed(signal));
      else await coolByProbe(cold, () => speed(signal), control.cool);
      return;
    } catch (error) {
      if (!(error instanceof Interrupted)) return; // A probe that fails is no reason to lose the round.
      if (error.reason !== 'HIDDEN' && error.reason !== 'RESIZED') throw error;
    } finally {
      release();
    }
    await control.shown();
  }
}

export async function ended(api: DeviceApi, how: 'DONE' | 'STOPPED'): Promise<boolean> {
  try {
    await api.end(how);
    return true;
  } catch (error) {
    return error instanceof Refused;
  }
}

/**
 * Loads every test and the files it needs before the first run. From then on a server that is away stops nothing.
 * Waits for the server where it is away now; a stop ends the waiting.
 */
export async function fetchAhead(tests: readonly DeviceTest[], control: Control): Promise<void> {
  for (;;) {
    try {
      const workloads = await Promise.all(tests.map((test) => loadWorkload(test.key)));
      const answers = await Promise.all(
        workloads.flatMap((workload) => workload?.assets ?? []).map((file) => fetch(file)),
      );
      await Promise.all(answers.map((answer) => answer.arrayBuffer()));
      if (answers.every((answer) => answer.ok)) return;
    } catch {
      // Tried again below.
    }
    await control.cool(RETRY_MS).catch(() => {});
    if (control.isStopped()) return;
  }
}

/** Keeps the screen on where the browser can. Given back by the browser when the page is hidden, so asked again then. */
export async function keepAwake(): Promise<() => void> {
  let lock: WakeLockSentinel | undefined;
  const ask = async () => {
    if (!document.hidden && 'wakeLock' in navigator)
      lock = await navigator.wakeLock.request('screen').catch(() => undefined);
  };
  const again = () => void ask();
  document.addEventListener('visibilitychange', again);
  await ask();
  return () => {
    document.removeEventListener('visibilitychange', again);
    void lock?.release().catch(() => {});
  };
}

/** Keeps the display turned as it is, where the browser lets an installed page: a turned device begins its run again. */
export function keepUpright(): () => void {
  const { orientation } = screen as { orientation?: ScreenOrientation & { lock?: (to: string) => Promise<void> } };
  void orientation?.lock?.(orientation.type).catch(() => {});
  return () => {
    try {
      orientation?.unlock();
    } catch {
      // Nothing was kept.
    }
  };
}
