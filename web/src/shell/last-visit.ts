/** Whoever comes back after so long was away. */
const AWAY_MS = 3_600_000;
const KEY = 'yarrowmark.visit';

interface Visit {
  /** When the visit before this one ended. */
  before?: number;
  /** When this one was last seen. */
  seen: number;
}

function read(owner: string): Visit | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(`${KEY} ${owner}`) ?? 'null') as Partial<Visit> | null;
    return typeof kept?.seen === 'number'
      ? { seen: kept.seen, ...(typeof kept.before === 'number' && { before: kept.before }) }
      : undefined;
  } catch {
    return undefined;
  }
}

/**
 * Notes that somebody is here now.
 *
 * @param owner whose visits they are: several people may use one browser
 * @returns when the visit before this one ended; undefined for the first
 */
export function noteVisit(owner: string, now: number): number | undefined {
  const kept = read(owner);
  // A clock that was put back counts as no time gone.
  const back = kept !== undefined && now - kept.seen > AWAY_MS;
  const before = back ? kept.seen : kept?.before;
  try {
    localStorage.setItem(`${KEY} ${owner}`, JSON.stringify({ seen: now, ...(before !== undefined && { before }) }));
  } catch {
    // Without room nothing is remembered, and everything is new next time.
  }
  return before;
}
