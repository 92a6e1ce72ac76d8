// @vitest-environment jsdom
import { afterEach, expect, test, vi } from 'vitest';
import type { CommandState } from '../seat/api.ts';
import { Control } from './control.ts';
import { Interrupted } from './round.ts';

let open: Control[] = [];
afterEach(() => {
  open.forEach((control) => control.close());
  open = [];
  Object.defineProperty(document, 'hidden', { value: false, configurable: true });
});

/** A server that answers when the test says so. */
function server() {
  const waiting: ((state: CommandState) => void)[] = [];
  return {
    asked: () => waiting.length,
    say: (state: CommandState) => waiting.at(-1)!(state),
    api: {
      command: (_after: number, signal: AbortSignal) =>
        new Promise<CommandState>((resolve, reject) => {
          waiting.push(resolve);
          signal.addEventListener('abort', () => reject(new Error('closed')));
        }),
    },
  };
}

function make(api: ReturnType<typeof server>['api'], command: CommandState['command'] = 'GO') {
  const control = new Control(api, command, 0, () => {});
  open.push(control);
  return control;
}

function hide(hidden: boolean) {
  Object.defineProperty(document, 'hidden', { value: hidden, configurable: true });
  document.dispatchEvent(new Event('visibilitychange'));
}

test('a pause holds and a go releases', async () => {
  const { api, say } = server();
  const control = make(api);
  say({ command: 'PAUSE', revision: 1 });
  await vi.waitFor(() => expect(control.paused()).toBe(true));
  let released = false;
  const held = control.allowed().then(() => (released = true));
  await Promise.resolve();
  expect(released).toBe(false);
  say({ command: 'GO', revision: 2 });
  await held;
  expect(released).toBe(true);
});

test('a stop ends what runs, what waits, and what would run next', async () => {
  const control = make(server().api);
  const { signal } = control.watch(60_000, new Error('late'));
  const cooling = control.cool(60_000);
  control.heard({ command: 'STOP', revision: 3 });
  expect(signal.reason).toBeInstanceOf(Interrupted);
  expect((signal.reason as Interrupted).reason).toBe('STOPPED_BY_REVIEWER');
  await expect(cooling).rejects.toBe(signal.reason);
  await expect(control.allowed()).rejects.toBe(signal.reason);
  expect(control.watch(60_000, new Error('late')).signal.aborted).toBe(true);
});

test('an older command than the one known changes nothing', () => {
  const control = make(server().api);
  control.heard({ command: 'PAUSE', revision: 5 });
  control.heard({ command: 'GO', revision: 4 });
  expect(control.paused()).toBe(true);
});

test('a hidden page cuts off the run, and showing it lets the round go on', async () => {
  const control = make(server().api);
  const { signal, release } = control.watch(60_000, new Error('late'));
  hide(true);
  expect((signal.reason as Interrupted).reason).toBe('HIDDEN');
  release();
  let shown = false;
  const waiting = control.shown().then(() => (shown = true));
  await Promise.resolve();
  expect(shown).toBe(false);
  hide(false);
  await waiting;
});

test('another width of the window cuts off the run, another height does not', () => {
  const control = make(server().api);
  const { signal } = control.watch(60_000, new Error('late'));
  window.innerHeight -= 80;
  window.dispatchEvent(new Event('resize'));
  expect(signal.aborted).toBe(false);
  window.innerWidth -= 80;
  window.dispatchEvent(new Event('resize'));
  expect((signal.reason as Interrupted).reason).toBe('RESIZED');
});

test('a run that is stuck ends with what it was given', () => {
  vi.useFakeTimers();
  try {
    const control = make(server().api);
    const late = new Error('late');
    const { signal } = control.watch(500, late);
    vi.advanceTimersByTime(501);
    expect(signal.reason).toBe(late);
    const next = control.watch(500, late);
    next.release();
    vi.advanceTimersByTime(501);
    expect(next.signal.aborted).toBe(false);
  } finally {
    vi.useRealTimers();
  }
});

test('the server is asked again only when there is something to wait for', async () => {
  const failing = { command: vi.fn(async () => Promise.reject(new Error('gone'))) };
  const control = make(failing);
  await vi.waitFor(() => expect(failing.command).toHaveBeenCalledTimes(1));
  expect(failing.command).toHaveBeenCalledTimes(1);
  await vi.waitFor(async () => {
    await control.allowed();
    expect(failing.command).toHaveBeenCalledTimes(2);
  });
});

test('while a test has the network for itself nothing is asked, and afterwards it is', async () => {
  const { api, asked, say } = server();
  const control = make(api);
  expect(asked()).toBe(1);
  const loud = control.hush();
  await vi.waitFor(() => expect(asked()).toBe(1));
  void control.allowed();
  await Promise.resolve();
  expect(asked(), 'not even before the next run').toBe(1);
  loud();
  await vi.waitFor(() => expect(asked()).toBe(2));
  say({ command: 'STOP', revision: 4 });
  await vi.waitFor(() => expect(control.isStopped()).toBe(true));
});
