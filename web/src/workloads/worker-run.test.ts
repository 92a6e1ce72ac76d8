import { expect, test } from 'vitest';
import { NoSpace, WrongAnswer, type RunOptions } from './types.ts';
import { runInWorker, type WorkerAnswer, type WorkerRequest } from './worker-run.ts';

/** A worker whose other side is written by the test. */
class MadeUpWorker {
  asked: WorkerRequest[] = [];
  ended = false;
  onmessage: ((event: { data: WorkerAnswer }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  postMessage(request: WorkerRequest) {
    this.asked.push(request);
  }
  terminate() {
    this.ended = true;
  }
  answer(data: WorkerAnswer) {
    this.onmessage!({ data });
  }
}

function run(more: Partial<RunOptions> = {}) {
  const worker = new MadeUpWorker();
  const abort = new AbortController();
  const result = runInWorker(worker as unknown as Worker, { timedMs: 100, clockResolutionMs: 0.005, signal: abort.signal, host: null as never, ...more }, { what: 'tarn' });
  return { worker, abort, result };
}

const MEASURED = { rate: 5, samples: [5], resolution: 0, timedMs: 100 };

test('what it measured comes back, and the worker ends', async () => {
  const { worker, result } = run({ endure: true });
  expect(worker.asked).toEqual([{ timedMs: 100, clockResolutionMs: 0.005, endure: true, detail: { what: 'tarn' } }]);
  worker.answer({ kind: 'measured', measurement: MEASURED });
  expect(await result).toEqual(MEASURED);
  expect(worker.ended).toBe(true);
});

test('a failure keeps its kind, and the worker ends', async () => {
  const wrong = run();
  wrong.worker.answer({ kind: 'failed', message: 'off by one', reason: 'WRONG_ANSWER' });
  await expect(wrong.result).rejects.toThrow(new WrongAnswer('off by one'));
  const full = run();
  full.worker.answer({ kind: 'failed', message: 'full', reason: 'NO_SPACE' });
  await expect(full.result).rejects.toBeInstanceOf(NoSpace);
  expect(wrong.worker.ended && full.worker.ended).toBe(true);
});

test('a worker that dies is told with its words, or that it could not be loaded', async () => {
  const died = run();
  died.worker.onerror!({ message: 'out of memory' });
  await expect(died.result).rejects.toThrow('out of memory');
  const never = run();
  never.worker.onerror!({ message: '' });
  await expect(never.result).rejects.toThrow('could not be loaded');
  expect(died.worker.ended && never.worker.ended).toBe(true);
});

test('a stop ends the worker at once, also one that came before it began', async () => {
  const stopped = run();
  stopped.abort.abort(new Error('the page was hidden'));
  await expect(stopped.result).rejects.toThrow('hidden');
  expect(stopped.worker.ended).toBe(true);
  const before = run({ signal: AbortSignal.abort(new Error('stopped')) });
  await expect(before.result).rejects.toThrow('stopped');
});
