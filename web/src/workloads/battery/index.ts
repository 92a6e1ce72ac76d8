import { pause } from '../pause.ts';
import type { Notes, Obstacle, RunOptions, Workload } from '../types.ts';
import { browserLook } from './level.ts';
import { clipType, LOADS, WORKER } from './loads.ts';
import { LOOK_MS, runBattery } from './run-down.ts';

/** A run may be held up for so long between two looks: by a question, or a device that sleeps. */
const PATIENCE_MS = 86_400_000;

const nowhere: Notes = { read: async () => null, write: async () => undefined };

async function obstacle(name: string): Promise<Obstacle | null> {
  if (name === 'video' && !clipType()) return { reason: 'NOT_SUPPORTED', words: 'This browser has no recorder to make a clip with.' };
  if (name === 'work' && typeof Worker !== 'function') return { reason: 'NOT_SUPPORTED', words: 'This browser has no workers.' };
  return null;
}

/** How fast a battery runs down, or charges, while the device does something that everybody does. */
export function batteryWorkload(key: string): Workload | null {
  const name = key.slice('battery-'.length);
  const load = Object.hasOwn(LOADS, name) ? LOADS[name]! : undefined;
  if (!load) return null;
  return {
    key,
    assets: name === 'work' ? [WORKER] : [],
    obstacle: () => obstacle(name),
    run: async (options: RunOptions) => {
      const { ask } = options;
      if (!ask) throw new Error('Nobody can be asked for the battery here.');
      const longest = () => options.more?.(PATIENCE_MS);
      longest();
      const measured = await runBattery(name !== 'charge', {
        look: browserLook(),
        now: () => performance.now(),
        date: () => Date.now(),
        wait: (ms) => {
          longest();
          return pause(Math.min(ms, LOOK_MS), options.signal);
        },
        ask: (question, signal) => ask(question, signal),
        notes: options.notes ?? nowhere,
        load: () => load(options),
      });
      return name === 'video' ? { ...measured, note: `${measured.note} Recorded and played as ${clipType()}.` } : measured;
    },
  };
}
