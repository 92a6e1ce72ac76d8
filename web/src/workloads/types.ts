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
  more?: { metric: string; value: number; resolution: number }[];
  /** What whoever reads the score should know. */
  note?: string;
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

/** The work was done but its result is not the known answer: the score does not count. */
export class WrongAnswer extends Error {}
