/** Seconds in one of each unit of time that a metric may have. */
const SECONDS: Readonly<Record<string, number>> = { ms: 1e-3, s: 1, min: 60, h: 3600 };

export function isTime(unit: string): boolean {
  return unit in SECONDS;
}

/** What a stopwatch shows: hundredths of a second, and minutes from one on. */
export function shown(ms: number): string {
  const hundredths = Math.floor(ms / 10);
  const minutes = Math.floor(hundredths / 6000);
  const seconds = ((hundredths % 6000) / 100).toFixed(2);
  return minutes === 0 ? seconds : `${minutes}:${seconds.padStart(5, '0')}`;
}

/** What is stored of it: seconds with hundredths, with their unit. */
export function typed(ms: number): string {
  return `${(Math.floor(ms / 10) / 100).toFixed(2)} s`;
}
