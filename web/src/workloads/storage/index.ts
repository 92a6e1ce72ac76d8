import type { Obstacle, Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import { freeBytes, storageAllowed } from './consent.ts';
import { MIB, needs, room, STORAGE_TESTS } from './plan.ts';
import script from './storage.worker.ts?worker&url';

async function obstacle(bytes: number, files: boolean): Promise<Obstacle | null> {
  if (!isSecureContext) return { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection: only then do browsers give a page files of its own.' };
  if (typeof Worker !== 'function' || typeof indexedDB !== 'object') return { reason: 'NOT_SUPPORTED', words: 'This browser has no workers or no database.' };
  if (files && (typeof navigator.storage?.getDirectory !== 'function' || typeof FileSystemFileHandle !== 'function')) {
    return { reason: 'NOT_SUPPORTED', words: 'This browser gives pages no files of their own.' };
  }
  const free = await freeBytes();
  if (free === null) return null;
  const here = room(bytes, free);
  if (here === 'too-little') return { reason: 'NOT_SUPPORTED', words: `Needs ${Math.ceil(bytes / MIB)} MiB, and this browser would store no more than ${(free / MIB).toFixed(1)} MiB.` };
  if (here === 'ask' && !storageAllowed()) return { reason: 'NOT_SUPPORTED', words: `Would use ${Math.ceil(bytes / MIB)} MiB, more than a tenth of the ${(free / MIB).toFixed(0)} MiB left to this page, and nobody at the device allowed it.` };
  return null;
}

/** Reading and writing as far as a browser lets a page: it and the system's cache stand between the test and the drive. */
export function storageWorkload(key: string): Workload | null {
  const test = STORAGE_TESTS.find((t) => key === `storage-${t}`);
  if (!test) return null;
  return {
    key,
    assets: [script],
    obstacle: () => obstacle(needs(test), test !== 'transactions'),
    run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { test }),
  };
}
