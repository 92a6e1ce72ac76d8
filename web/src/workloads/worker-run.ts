import { endure } from './endure.ts';
import { measure, type MeasureOptions } from './measure.ts';
import { failureOf, reasonOf, type FailureReason, type Measurement, type RunOptions } from './types.ts';

/** What a page asks of a workload's worker. */
export interface WorkerRequest {
  timedMs: number;
  clockResolutionMs: number;
  endure?: boolean;
  /** What this worker needs to know beside it. */
  detail?: unknown;
}

export type WorkerAnswer =
  | { kind: 'measured'; measurement: Measurement }
  | { kind: 'failed'; message: string; reason?: FailureReason };

/** Runs a worker once and ends it, so that each test starts with fresh memory and leaves none behind. */
export function runInWorker(worker: Worker, options: RunOptions, detail?: unknown): Promise<Measurement> {
  return new Promise<Measurement>((resolve, reject) => {
    const stop = () => reject(options.signal.reason);
    options.signal.addEventListener('abort', stop, { once: true });
    if (options.signal.aborted) stop();
    worker.onmessage = (event: MessageEvent<WorkerAnswer>) => {
      const answer = event.data;
      if (answer.kind === 'measured') resolve(answer.measurement);
      else reject(failureOf(answer.message, answer.reason));
    };
    worker.onerror = (event) => reject(new Error(event.message || 'the worker could not be loaded'));
    worker.postMessage({ timedMs: options.timedMs, clockResolutionMs: options.clockResolutionMs, endure: options.endure, detail } satisfies WorkerRequest);
  }).finally(() => worker.terminate());
}

/** The other side: waits for the request, prepares, measures, answers. */
export function serveRun<Detail = undefined>(prepare: (detail: Detail) => Promise<{ work: (rounds: number) => Promise<void> | void; perRound: number; after?: () => void }>): void {
  serveMeasurement<Detail>(async (detail, options) => {
    const { work, perRound, after } = await prepare(detail);
    const measurement = await options.take(work, perRound, options);
    after?.();
    return measurement;
  });
}

/** The same for what is more than one piece of work. */
export function serveMeasurement<Detail = undefined>(take: (detail: Detail, options: MeasureOptions & { take: typeof measure }) => Promise<Measurement>): void {
  self.onmessage = async (event: MessageEvent<WorkerRequest>) => {
    let answer: WorkerAnswer;
    try {
      const { timedMs, clockResolutionMs, endure: long, detail } = event.data;
      answer = { kind: 'measured', measurement: await take(detail as Detail, { timedMs, clockResolutionMs, now: () => performance.now(), take: long ? endure : measure }) };
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      answer = { kind: 'failed', message, reason: reasonOf(error) };
    }
    self.postMessage(answer);
  };
}
