import type { Obstacle, Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import { freeBytes, storageAllowed } from './consent.ts';
import type { FilesFound } from './files.worker.ts';
import finder from './files.worker.ts?worker&url';
import { MIB, needs, room, STORAGE_TESTS } from './plan.ts';
import script from './storage.worker.ts?worker&url';

async function obstacle(bytes: number, files: boolean): Promise<Obstacle | null> {
  if (!isSecureContext) return { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection: only then do browsers give a page files of its own.' };
  if (typeof Worker !== 'function' || typeof indexedDB !== 'object') return { reason: 'NOT_SUPPORTED', words: 'This browser has no workers or no database.' };
  const without = files ? withoutFiles(await filesHere()) : null;
  if (without !== null) return { reason: 'NOT_SUPPORTED', words: without };
  const free = await freeBytes();
  if (free === null) return null;
  const here = room(bytes, free);
  if (here === 'too-little') return { reason: 'NOT_SUPPORTED', words: `Needs ${Math.ceil(bytes / MIB)} MiB, and this browser would store no more than ${(free / MIB).toFixed(1)} MiB.` };
  if (here === 'ask' && !storageAllowed()) return { reason: 'NOT_SUPPORTED', words: `Would use ${Math.ceil(bytes / MIB)} MiB, more than a tenth of the ${(free / MIB).toFixed(0)} MiB left to this page, and nobody at the device allowed it.` };
  return null;
}

let asked: Promise<FilesFound> | undefined;

/** Asked in a worker, where the tests run. */
function filesHere(): Promise<FilesFound> {
  asked ??= new Promise<FilesFound>((resolve) => {
    const worker = new Worker(finder, { type: 'module' });
    const done = (found: FilesFound) => {
      worker.terminate();
      resolve(found);
    };
    worker.onmessage = (event: MessageEvent<FilesFound>) => done(event.data);
    worker.onerror = (event) => done({ refused: event.message || 'the worker could not be loaded' });
  });
  return asked;
}

/** Why there are none, in words; nothing where there are. */
export function withoutFiles(found: FilesFound): string | null {
  if (found === 'able') return null;
  if (found === 'none') return 'This browser gives neither pages nor their workers files of their own.';
  if (found === 'no-direct') return 'This browser gives workers files of their own, but none that can be read and written in place.';
  return `This browser has files for pages, but gives none in this window (${found.refused}): it is a private one, perhaps. Try an ordinary window.`;
}

/** Reading and writing as far as a browser lets a page: it and the system's cache stand between the test and the drive. */
export function storageWorkload(key: string): Workload | null {
  const test = STORAGE_TESTS.find((t) => key === `storage-${t}`);
  if (!test) return null;
  return {
    key,
    assets: [script, finder],
    obstacle: () => obstacle(needs(test), test !== 'transactions'),
    run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { test }),
  };
}
