import { expect, test, vi } from 'vitest';
import { whenAlone } from './one-tab.ts';

/** Locks as the browser gives them: one holder, the others in line. */
function locks() {
  let held = false;
  const line: (() => void)[] = [];
  const give = (run: (lock: unknown) => unknown) => {
    held = true;
    void Promise.resolve(run({})).then(() => {
      held = false;
      line.shift()?.();
    });
  };
  const manager = {
    request: async (_name: string, ...more: unknown[]) => {
      const run = more.at(-1) as (lock: unknown) => unknown;
      const ifAvailable = more.length > 1;
      if (!held) give(run);
      else if (ifAvailable) run(null);
      else line.push(() => give(run));
      return Promise.resolve();
    },
  } as unknown as LockManager;
  return { manager, close: () => ((held = false), line.shift()?.()) };
}

test('the first tab goes on at once, the second waits and says so, and goes on when the first is closed', async () => {
  const browser = locks();
  const waiting = vi.fn();
  await whenAlone('seat', waiting, browser.manager);
  expect(waiting).not.toHaveBeenCalled();
  let second = false;
  const waits = whenAlone('seat', waiting, browser.manager).then(() => (second = true));
  await vi.waitFor(() => expect(waiting).toHaveBeenCalledTimes(1));
  expect(second).toBe(false);
  browser.close();
  await waits;
  expect(second).toBe(true);
});

test('a browser without locks goes on', async () => {
  const waiting = vi.fn();
  await whenAlone('seat', waiting, null);
  expect(waiting).not.toHaveBeenCalled();
});
