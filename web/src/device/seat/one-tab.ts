/**
 * Resolves once no other tab of this browser holds the name, and holds it until this one is closed. Two tabs that carry out
 * one round would time each other and deliver everything twice.
 *
 * @param waiting called where another tab holds it now
 */
export async function whenAlone(
  name: string,
  waiting: () => void,
  locks: LockManager | null = globalThis.navigator?.locks ?? null,
): Promise<void> {
  // Browsers give locks to secure connections alone, and then there is nothing to hold.
  if (!locks) return;
  await new Promise<void>((alone, failed) => {
    const hold = () => {
      alone();
      return new Promise<never>(() => {});
    };
    locks
      .request(name, { ifAvailable: true }, (lock) => {
        if (lock) return hold();
        waiting();
        locks.request(name, hold).catch(failed);
        return undefined;
      })
      .catch(failed);
  });
}
