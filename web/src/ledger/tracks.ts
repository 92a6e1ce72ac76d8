import type { Schemas } from '../api/client.ts';

type Track = Schemas['Track'];

const KINDS: Record<string, string> = {
  temperature: 'Temperature of the processor',
  'temperature-elsewhere': 'Temperatures elsewhere',
  clock: 'Clock',
  'clock-range': 'Fastest and slowest core',
  power: 'Power of the processor',
  'power-part': 'Power of its parts',
  discharge: 'Power from the battery',
  fan: 'Fans',
  throttle: 'Held back for heat',
  others: 'Other programs',
};

export interface Kind {
  kind: string;
  title: string;
  unit: string;
  tracks: Track[];
}

/** Tracks that are shown together: those of one kind and unit, in the order in which kinds matter. */
export function byKind(tracks: readonly Track[]): Kind[] {
  const kinds = new Map<string, Kind>();
  for (const t of tracks) {
    // Nothing that was counted is worth no picture.
    if (t.kind === 'throttle' && t.values.every((v) => v === 0)) continue;
    const key = `${t.kind} ${t.unit}`;
    const kind = kinds.get(key) ?? { kind: t.kind, title: KINDS[t.kind] ?? t.kind, unit: t.unit, tracks: [] };
    kind.tracks.push(t);
    kinds.set(key, kind);
  }
  const order = Object.keys(KINDS);
  const rank = (k: Kind) => (order.includes(k.kind) ? order.indexOf(k.kind) : order.length);
  return [...kinds.values()].sort((a, b) => rank(a) - rank(b));
}

/** One line for all sensors of a kind: the hottest, the sum of powers, else their mean at each moment. */
export function together({ kind, tracks }: Pick<Kind, 'kind' | 'tracks'>): { stepMs: number; values: number[] } {
  const length = Math.min(...tracks.map((t) => t.values.length));
  const values = Array.from({ length }, (_, i) => {
    const now = tracks.map((t) => t.values[i]!);
    if (kind.startsWith('temperature')) return Math.max(...now);
    const sum = now.reduce((a, b) => a + b, 0);
    return kind === 'power' || kind === 'discharge' || kind === 'throttle' ? sum : sum / now.length;
  });
  return { stepMs: tracks[0]?.stepMs ?? 0, values };
}
