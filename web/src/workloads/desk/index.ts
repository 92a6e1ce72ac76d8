import type { Workload } from '../types.ts';
import { runInWorker } from '../worker-run.ts';
import { courier, COURIER_FILES } from './courier.ts';
import script from './desk.worker.ts?worker&url';
import { PIECES } from './pieces.ts';

const noWorkers = () => (typeof Worker === 'function' ? null : { reason: 'NOT_SUPPORTED' as const, words: 'This browser has no workers.' });

/** Tests of the language a browser runs, away from the page. */
export function deskWorkload(key: string): Workload | null {
  if (key === 'desk-courier') return { key, assets: COURIER_FILES, obstacle: noWorkers, run: courier };
  if (!Object.hasOwn(PIECES, key)) return null;
  return { key, assets: [script], obstacle: noWorkers, run: (options) => runInWorker(new Worker(script, { type: 'module' }), options, { key }) };
}
