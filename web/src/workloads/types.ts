/** Asked of whoever holds the device. */
export interface Question {
  title: string;
  /** Each a paragraph. */
  words: string[];
  fields?: { key: string; label: string; hint?: string }[];
  /** The first is the main one. With none it only says something, until it is no longer asked. */
  buttons: { key: string; label: string }[];
}

export interface Answer {
  button: string;
  fields: Record<string, string>;
}

/** What a run that takes hours has so far, kept on the device: whoever takes it up again after a reload reads it. */
export interface Notes {
  read(): Promise<unknown>;
  write(value: unknown): Promise<void>;
}

/** What a test needs to know to run once. Times are in milliseconds. */
export interface RunOptions {
  /** Least timed part of the run. */
  timedMs: number;
  /** Measured step of the clock. */
  clockResolutionMs: number;
  /** Aborts the run at once; its reason is what the run is stopped for. */
  signal: AbortSignal;
  /** Where a test that needs the page may put its frame. */
  host: HTMLElement;
  /** Told how long the rest of the run takes, as calibration saw it: the run is given that time, or ended where it is too much. */
  takes?: (ms: number) => void;
  /** Told that the run may go on so long from now, whatever it was given: another device's turn, a walk, a battery. */
  more?: (ms: number) => void;
  /** Rejects when the run is stopped, or the signal says that it is no longer asked. */
  ask?: (question: Question, signal?: AbortSignal) => Promise<Answer>;
  notes?: Notes;
  /** The server, as this device. @param path behind /api/device/ */
  bench?: (path: string, init?: RequestInit) => Promise<Response>;
  /** From now until the answer is called, nothing else of ours uses the network. */
  quiet?: () => () => void;
  /** Works in a loop without a pause, and gives the work of each loop, instead of a reading. */
  endure?: boolean;
}

/** What one run measured. Rates are in the test's unit. */
export interface Measurement {
  /** The reading: the median of the samples. */
  rate: number;
  /** Every timed sample's rate, in order. */
  samples: number[];
  /** The smallest step the rate could show, from the clock's. */
  resolution: number;
  /** Sum of the timed samples. */
  timedMs: number;
  /** Further numbers of the same run, by the key of their metric. */
  more?: { metric: string; value: number; resolution: number; samples?: number[] }[];
  /** What whoever reads the score should know. */
  note?: string;
  /** Why it may not say what it should: the run is marked with it. */
  disturbed?: string;
}

/** Why a test cannot run here, as a reason of the ledger and in words. */
export interface Obstacle {
  reason: 'NOT_SUPPORTED' | 'NEEDS_SECURE_CONNECTION';
  words: string;
}

export interface Workload {
  key: string;
  /** Files it needs while it runs. They are fetched before the round starts, so that a lost server stops no run. */
  assets: readonly string[];
  /** Nothing where it can run. */
  obstacle(): Obstacle | null | Promise<Obstacle | null>;
  run(options: RunOptions): Promise<Measurement>;
}

/** Why a test failed, where it knows more than that it did. Kept as a word of its own: names of classes are shortened in built files. */
export type FailureReason = 'WRONG_ANSWER' | 'CONTEXT_LOST' | 'NO_SPACE';

/** The work was done but its result is not the known answer: the score does not count. */
export class WrongAnswer extends Error {
  readonly reason = 'WRONG_ANSWER';
}

/** The browser took the graphics processor away: it was reset, or another program had it for too long. */
export class ContextLost extends Error {
  readonly reason = 'CONTEXT_LOST';
}

/** The device has no room for what the test writes. What a browser says about its room beforehand is only an estimate. */
export class NoSpace extends Error {
  readonly reason = 'NO_SPACE';
}

/** The failure's reason, where it has one that is known. */
export function reasonOf(error: unknown): FailureReason | undefined {
  return error instanceof WrongAnswer || error instanceof ContextLost || error instanceof NoSpace ? error.reason : undefined;
}

/** The same failure on the other side of a message. */
export function failureOf(message: string, reason?: FailureReason): Error {
  const kinds = { WRONG_ANSWER: WrongAnswer, CONTEXT_LOST: ContextLost, NO_SPACE: NoSpace };
  return reason ? new kinds[reason](message) : new Error(message);
}
