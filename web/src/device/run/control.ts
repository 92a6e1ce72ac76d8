import type { CommandState, DeviceApi } from '../seat/api.ts';
import { either } from './either.ts';
import { Interrupted, type Watched } from './round.ts';

/**
 * What may stop or hold the round: the reviewer's commands, the person at the device, a hidden page, a resized window.
 * The reviewer's commands come by one request that the server answers when there is something to say, so nothing of
 * ours happens while a test runs. A request that fails is made again between two runs, not during one.
 */
export class Control {
  private readonly api: Pick<DeviceApi, 'command'>;
  private command: CommandState['command'];
  private revision: number;
  private asking = false;
  private waitsForGo = false;
  private goneOn = false;
  private running: AbortController | null = null;
  private stopped: Interrupted | null = null;
  private readonly waiting = new Set<() => void>();
  private readonly closed = new AbortController();
  /** The request that waits for a command, where one does. */
  private waitsForWord: AbortController | null = null;
  private hushed = false;
  private readonly onChange: () => void;

  constructor(
    api: Pick<DeviceApi, 'command'>,
    command: CommandState['command'],
    revision: number,
    onChange: () => void,
  ) {
    this.api = api;
    this.command = command;
    this.revision = revision;
    this.onChange = onChange;
    if (command === 'STOP') this.stop(new Interrupted('STOPPED_BY_REVIEWER', 'The reviewer stopped it.'));
    document.addEventListener('visibilitychange', this.visibility);
    window.addEventListener('resize', this.resized);
    this.width = window.innerWidth;
    void this.ask();
  }

  private width: number;
  private readonly visibility = () => {
    if (document.hidden) this.running?.abort(new Interrupted('HIDDEN', 'The page was hidden or the screen slept.'));
    this.wake();
  };
  private readonly resized = () => {
    // A phone's address bar changes the height by itself; only another width means that somebody did something.
    if (window.innerWidth === this.width) return;
    this.width = window.innerWidth;
    this.running?.abort(new Interrupted('RESIZED', 'The window was resized.'));
  };

  close(): void {
    this.closed.abort();
    document.removeEventListener('visibilitychange', this.visibility);
    window.removeEventListener('resize', this.resized);
  }

  paused = (): boolean => this.command === 'PAUSE';
  isStopped = (): boolean => this.stopped !== null;

  /** The person at the device stops the round, at once. */
  stopHere(): void {
    this.stop(new Interrupted('STOPPED_AT_DEVICE', 'It was stopped at the device.'));
  }

  /** Takes in a command that came with another answer. */
  heard(state: CommandState): void {
    if (state.revision <= this.revision) return;
    this.revision = state.revision;
    this.command = state.command;
    if (state.command === 'STOP') this.stop(new Interrupted('STOPPED_BY_REVIEWER', 'The reviewer stopped it.'));
    this.wake();
    this.onChange();
  }

  watch = (limitMs: number, over: Error): Watched => {
    const controller = new AbortController();
    let timer = setTimeout(() => controller.abort(over), limitMs);
    this.running = controller;
    if (this.stopped) controller.abort(this.stopped);
    else if (document.hidden) this.visibility();
    const release = () => {
      clearTimeout(timer);
      this.running = null;
    };
    const extend = (ms: number, late: Error) => {
      clearTimeout(timer);
      timer = setTimeout(() => controller.abort(late), ms);
    };
    return { signal: controller.signal, release, extend };
  };

  isShown = (): boolean => !document.hidden;

  shown = (): Promise<void> => this.until(() => !document.hidden);

  /** Resolves when nothing holds the round; throws when it was stopped. */
  allowed = async (): Promise<void> => {
    void this.ask();
    await this.until(() => this.command !== 'PAUSE');
  };

  /** Resolves when somebody says that it goes on: the reviewer at the bench, or whoever holds the device. */
  goSaid = async (): Promise<void> => {
    const before = this.revision;
    this.goneOn = false;
    this.waitsForGo = true;
    void this.ask();
    try {
      await this.until(() => this.goneOn || (this.revision > before && this.command === 'GO'));
    } finally {
      this.waitsForGo = false;
    }
  };

  /** Whoever holds the device says that it goes on. */
  goOnHere(): void {
    this.goneOn = true;
    this.wake();
  }

  /** Asks the server nothing until the answer is called: a test that measures the network has it for itself. */
  hush = (): (() => void) => {
    this.hushed = true;
    this.waitsForWord?.abort();
    return () => {
      this.hushed = false;
      void this.ask();
    };
  };

  cool = async (ms: number): Promise<void> => {
    void this.ask();
    let over = false;
    const timer = setTimeout(() => {
      over = true;
      this.wake();
    }, ms);
    try {
      await this.until(() => over);
    } finally {
      clearTimeout(timer);
    }
  };

  private stop(reason: Interrupted): void {
    this.stopped ??= reason;
    this.running?.abort(this.stopped);
    this.wake();
  }

  private wake(): void {
    this.waiting.forEach((look) => look());
  }

  private until(condition: () => boolean): Promise<void> {
    return new Promise((resolve, reject) => {
      const look = () => {
        if (!this.stopped && !condition()) return;
        this.waiting.delete(look);
        if (this.stopped) reject(this.stopped);
        else resolve();
      };
      this.waiting.add(look);
      look();
    });
  }

  private async ask(): Promise<void> {
    if (this.asking || this.hushed || this.closed.signal.aborted) return;
    this.asking = true;
    const word = (this.waitsForWord = new AbortController());
    const over = either(this.closed.signal, word.signal);
    try {
      for (;;) this.heard(await this.api.command(this.revision, over));
    } catch {
      // The server is away or the page is closing; asked again before the next run. While held nothing
      // runs, so there it may ask by itself.
      if ((this.command === 'PAUSE' || this.waitsForGo) && !this.closed.signal.aborted)
        setTimeout(() => void this.ask(), 3_000);
    } finally {
      this.asking = false;
    }
    // It was let go for a test that is over by now.
    if (word.signal.aborted && !this.hushed) void this.ask();
  }
}
