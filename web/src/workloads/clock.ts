/**
 * The smallest step of a clock in milliseconds, as the smallest difference seen between two readings of it. Secure and
 * isolated pages have about 0.005 ms; others 0.1 or 1 ms, some with jitter.
 */
export function clockResolution(now: () => number, tries = 20): number {
  let smallest = Infinity;
  for (let i = 0; i < tries; i++) {
    const start = now();
    let next = start;
    for (let spins = 0; next === start && spins < 10_000_000; spins++) next = now();
    if (next > start) smallest = Math.min(smallest, next - start);
  }
  return smallest === Infinity ? 1000 : smallest;
}
