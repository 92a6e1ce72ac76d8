/** What is known of the battery now. Level in per cent, above 0 to 100. */
export interface Seen {
  level: number;
  charging: boolean;
}

/** Looks at the battery; nothing where the browser does not tell, or tells what cannot be. */
export type Look = () => Promise<Seen | null>;

interface Battery {
  level: number;
  charging: boolean;
}

export function browserLook(): Look {
  const ask = (navigator as { getBattery?: () => Promise<Battery> }).getBattery?.bind(navigator);
  return async () => {
    try {
      const battery = await ask?.();
      return battery ? believed(battery) : null;
    } catch {
      return null;
    }
  };
}

/** A level that no battery can have is none. At 0 % a device may still run: its last per cent is what it is told as. */
export function believed({ level, charging }: Battery): Seen | null {
  if (typeof level !== 'number' || !(level >= 0 && level <= 1)) return null;
  return { level: Math.max(0.5, Math.round(level * 1000) / 10), charging };
}

/** What somebody typed, in per cent; nothing where it is no level. */
export function typedLevel(text: string | undefined): number | null {
  const plain = (text ?? '').trim().replace(/\s*%$/, '').replace(',', '.');
  const level = /^\d{1,3}(\.\d+)?$/.test(plain) ? Number(plain) : NaN;
  return level > 0 && level <= 100 ? level : null;
}

/** Watts that a meter showed; nothing where it is no number of them. */
export function typedWatts(text: string | undefined): number | null {
  const plain = (text ?? '').trim().replace(/\s*W$/i, '').replace(',', '.');
  const watts = /^\d{1,4}(\.\d+)?$/.test(plain) ? Number(plain) : NaN;
  return watts > 0 && watts <= 2000 ? watts : null;
}
