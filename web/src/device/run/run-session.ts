import { isNative, leavesPageIdle, loadWorkload } from '../../workloads/registry.ts';
import { allowStorage } from '../../workloads/storage/consent.ts';
import type { Answer, Question } from '../../workloads/types.ts';
import { type DeviceApi, type DeviceSeat, type DeviceTest, type Phase, type RunBody } from '../seat/api.ts';
import { Control } from './control.ts';
import { either } from './either.ts';
import { deliverKept } from './deliver.ts';
import { freshKey } from '../seat/fresh-key.ts';
import { saysWhy } from '../seat/in-words.ts';
import type { Begun, Outbox } from '../seat/outbox.ts';
import { probeSpeed } from '../hardware/probe.ts';
import { runRound } from './round.ts';
import { watchRun } from './watch.ts';
import { cooled, ended, fetchAhead, keepAwake, keepUpright, RETRY_MS } from './between-runs.ts';

/** What the page shows while a round is carried out. */
export interface Showing {
  phase: Phase;
  test: DeviceTest | null;
  runNumber: number | null;
  /** Finished runs that the server has not confirmed. */
  waiting: number;
  /** Kept at the bench for the reviewer, because the session was ended without this device. */
  late: number;
  /** Runs that the server would not take; they stay on this device. */
  refused: number;
  /** Why nothing gets through, where that is known. */
  trouble: string | null;
  paused: boolean;
  /** What the running test asks of whoever holds the device. */
  question: Asked | null;
  /** Since the round began on this page. */
  elapsedMs: number;
}

/** A question, and where its answer goes. */
export interface Asked {
  question: Question;
  answer: (answer: Answer) => void;
}

export interface Conductor {
  stop(): void;
  /** Whoever holds the device says that a wait is over. */
  goOn(): void;
  /** How the round ended, once everything is delivered. */
  ended: Promise<'DONE' | 'STOPPED'>;
}

/** A test that takes its page along each time would do so for ever. */
const MOST_GONE = 5;

/** Carries out a seat's round on this page: runs, keeps, delivers, and goes on after a reload. */
export function runSession(
  api: DeviceApi,
  outbox: Outbox,
  seat: DeviceSeat,
  clockResolutionMs: number,
  host: HTMLElement,
  show: (showing: Showing) => void,
): Conductor {
  let showing: Showing = {
    phase: 'RUNNING',
    test: null,
    runNumber: null,
    waiting: 0,
    late: 0,
    refused: 0,
    trouble: null,
    paused: seat.command === 'PAUSE',
    question: null,
    elapsedMs: 0,
  };
  const began = performance.now();
  const update = (change: Partial<Showing>) =>
    show((showing = { ...showing, ...change, elapsedMs: performance.now() - began }));
  const control = new Control(api, seat.command, seat.commandRevision, () => update({ paused: control.paused() }));

  let delivering: Promise<boolean> = Promise.resolve(true);
  /** Answers whether everything is delivered. One delivery at a time, or two would send the same run. */
  const deliver = (): Promise<boolean> =>
    (delivering = delivering.then(async () => {
      try {
        const became = await deliverKept(api, outbox, () => Date.now());
        update({
          waiting: 0,
          late: showing.late + became.late,
          refused: showing.refused + became.refused,
          trouble: null,
        });
        return true;
      } catch (error) {
        update({
          waiting: (await outbox.waiting()).length,
          trouble: saysWhy(error) ? error.message : null,
        });
        return false;
      }
    }));

  let latest = {};
  let telling: Promise<void> = Promise.resolve();
  const tell = (phase: Phase, test?: DeviceTest, runNumber?: number, untilMs?: number) => {
    update({ phase, test: test ?? null, runNumber: runNumber ?? null });
    // The reviewer's lane is a courtesy: a round does not wait for it, and what is out of date by its turn is not told.
    const mine = (latest = {});
    telling = telling
      .then(() =>
        mine === latest
          ? api.progress(phase, test?.id, runNumber, untilMs).then((state) => control.heard(state))
          : undefined,
      )
      .catch(() => {});
  };

  /** Shows what a test asks until it is answered. A question that comes while another stands takes its place, and gives it back. */
  const asked: Asked[] = [];
  const ask = (question: Question, signal: AbortSignal) =>
    new Promise<Answer>((resolve, reject) => {
      const mine: Asked = {
        question,
        answer: (answer) => {
          leave();
          resolve(answer);
        },
      };
      const stop = () => {
        leave();
        reject(signal.reason as Error);
      };
      const leave = () => {
        signal.removeEventListener('abort', stop);
        asked.splice(asked.indexOf(mine), 1);
        update({ question: asked.at(-1) ?? null });
      };
      asked.push(mine);
      update({ question: mine });
      if (signal.aborted) stop();
      else signal.addEventListener('abort', stop, { once: true });
    });

  const work = async (): Promise<'DONE' | 'STOPPED'> => {
    let how = await outbox.ended();
    if (!how) {
      const begun = await outbox.begun();
      if (begun) {
        await outbox.keep({
          key: freshKey(),
          finishedAt: Date.now(),
          body: {
            testId: begun.testId,
            runNumber: begun.runNumber,
            attempt: begun.attempt,
            ...(await howItWent(outbox, begun)),
            durationMs: sinceBegun(begun),
            readings: [],
          },
        });
      }
      // What waits here has been done, whether or not the server knows it yet.
      const kept = (await outbox.waiting()).map(({ body }) => ({
        testId: body.testId,
        runNumber: body.runNumber,
        attempt: body.attempt,
        state: body.state,
        ...(body.readings[0] && { value: body.readings[0].value, resolution: body.readings[0].resolution }),
      }));
      void deliver();
      allowStorage(await outbox.storageAllowed());
      const wake = await keepAwake();
      const turn = keepUpright();
      const power = await (navigator as { getBattery?: () => Promise<EventTarget & { charging: boolean }> })
        .getBattery?.()
        .catch(() => undefined);
      try {
        await fetchAhead(
          seat.tests.filter((test) => !test.byHand),
          control,
        );
        how = await runRound(
          { ...seat, done: [...seat.done, ...kept] },
          {
            obstacle: async (test) => {
              const workload = await loadWorkload(test.key);
              return workload
                ? workload.obstacle()
                : isNative(test.key)
                  ? {
                      reason: 'NOT_SUPPORTED',
                      words: 'Runs on computers, by the runner; the bench shows how to get it.',
                    }
                  : { reason: 'NOT_SUPPORTED', words: `This page does not know the test ${test.key}. Reload it.` };
            },
            execute: async (test, runNumber, signal, time) => {
              const workload = await loadWorkload(test.key);
              if (!workload) throw new Error(`This page does not know the test ${test.key}.`);
              signal.throwIfAborted();
              return workload.run({
                timedMs: test.timedMs ?? seat.timedMs,
                clockResolutionMs,
                signal,
                host,
                ...time,
                ask: (question, noLonger) => ask(question, noLonger ? either(signal, noLonger) : signal),
                notes: {
                  read: () => outbox.notes(test.id, runNumber),
                  write: (notes) => outbox.note(test.id, runNumber, notes),
                },
                bench: api.bench,
                quiet: control.hush,
              });
            },
            begin: (testId, runNumber, attempt) => outbox.begin({ testId, runNumber, attempt, at: Date.now() }),
            keep: async (run) => {
              await outbox.keep({ key: freshKey(), finishedAt: Date.now(), body: run });
              void deliver();
            },
            tell,
            shown: control.shown,
            isShown: control.isShown,
            allowed: async (test, runNumber) => {
              // What a run left to send is sent before the next one starts. A pause may come meanwhile, so it is looked at after.
              await delivering;
              if (control.paused()) tell('PAUSED', test, runNumber);
              await control.allowed();
            },
            goSaid: control.goSaid,
            cool: control.cool,
            coolByProbe: () => cooled(control, outbox, (signal) => probeSpeed(clockResolutionMs, signal, host)),
            notice: (test) =>
              watchRun(leavesPageIdle(test.key), power, { now: () => performance.now(), date: () => Date.now() }),
            hasNotes: async (test, runNumber) => (await outbox.notes(test.id, runNumber)) !== null,
            watch: control.watch,
            now: () => performance.now(),
          },
        );
      } catch (error) {
        // Nobody foresaw it: the run that was under way failed with that reason, and the round is over rather than stuck.
        const cut = await outbox.begun();
        if (cut) await outbox.keep({ key: freshKey(), finishedAt: Date.now(), body: failedIn(cut, error) });
        how = 'STOPPED';
      } finally {
        wake();
        turn();
      }
      await outbox.ending(how);
    }
    update({ phase: how, test: null, runNumber: null });
    control.close();
    // The end waits for the last delivery: a session that is over takes no more runs.
    for (;;) {
      if ((await deliver()) && (await ended(api, how))) return how;
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  };
  return { stop: () => control.stopHere(), goOn: () => control.goOnHere(), ended: work() };
}

/**
 * What became of a run in which the page went away. A run with notes goes on from them however often that happens; of
 * any other, the page is not let go away again and again.
 */
async function howItWent(
  outbox: Outbox,
  { testId, runNumber }: Begun,
): Promise<Pick<RunBody, 'state' | 'reason' | 'reasonWords'>> {
  const times = await outbox.goneIn(testId, runNumber);
  return times >= MOST_GONE && (await outbox.notes(testId, runNumber)) === null
    ? {
        state: 'FAILED',
        reason: 'ERROR',
        reasonWords: `The page went away in the middle of this run, ${times} times: the browser may not be able to carry it out.`,
      }
    : {
        state: 'STOPPED',
        reason: 'RELOADED',
        reasonWords: 'The page was reloaded or closed in the middle of this run.',
      };
}

function failedIn(begun: Begun, error: unknown): RunBody {
  const words = error instanceof Error ? error.message || error.name : String(error);
  return {
    testId: begun.testId,
    runNumber: begun.runNumber,
    attempt: begun.attempt,
    state: 'FAILED',
    reason: 'ERROR',
    reasonWords: `The page could not go on: ${words}`.slice(0, 500),
    durationMs: sinceBegun(begun),
    readings: [],
  };
}

const sinceBegun = (begun: Begun) => Math.max(0, Math.min(86_400_000, Date.now() - begun.at));
