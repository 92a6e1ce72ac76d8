const DAY_MINUTES = 1_440;

/**
 * How long it is until a time of day: one that is past is tomorrow's.
 *
 * @param time as a field has it, "17:00"
 * @returns whole minutes, 1 to 1440; undefined where it is no time
 */
export function minutesUntil(time: string, now: Date): number | undefined {
  const [, hour, minute] = /^(\d\d):(\d\d)$/.exec(time) ?? [];
  if (hour === undefined || minute === undefined || Number(hour) > 23 || Number(minute) > 59) return undefined;
  const left = Number(hour) * 60 + Number(minute) - (now.getHours() * 60 + now.getMinutes());
  return left > 0 ? left : left + DAY_MINUTES;
}
