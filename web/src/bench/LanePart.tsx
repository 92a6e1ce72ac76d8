import { useMutation } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { duration, reason, runState } from '../format/format.ts';
import { LateRuns } from './LateRuns.tsx';
import { nowInWords, phasePill } from './lane-words.ts';
import { LiveSensors } from './LiveSensors.tsx';
import { RoundScores } from './RoundScores.tsx';
import type { Lane } from './useBench.ts';

type Run = Lane['tests'][number]['runs'][number];
const QUIET_MS = 90_000;

/** One device: what it is, a dot for each run, what it does now, and what can be told to it. */
export function LanePart({ lane, now }: { lane: Lane; now: number }) {
  const c = lane.configuration;
  const over = lane.phase === 'DONE' || lane.phase === 'STOPPED';
  const pill = phasePill(lane);
  const silentMs = lane.lastHeardAt ? now - new Date(lane.lastHeardAt).getTime() : 0;
  // A device that is paused or hidden has nothing to say.
  const silent = (lane.phase === 'RUNNING' || lane.phase === 'COOLING') && silentMs > QUIET_MS;
  const name = c ? `${c.maker} ${c.model}` : (lane.device ?? lane.code);
  return (
    <article aria-label={name} className="border-t border-hair pt-2.5 pb-3">
      <header className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2>
          {c ? (
            <Link
              to="/shelf/configurations/$configurationId"
              params={{ configurationId: String(c.id) }}
              className="hover:underline"
            >
              {name}
            </Link>
          ) : (
            name
          )}
        </h2>
        <span className="small max-w-[400px] min-w-0 truncate" title={c?.name}>
          {c?.name}
        </span>
        <span className="pill" data-tone={pill.tone}>
          {pill.words}
        </span>
        {silent && (
          <span className="pill" data-tone="bad">
            last heard {duration(silentMs)} ago
          </span>
        )}
        <Orders lane={lane} silent={silent} over={over} />
      </header>
      {lane.phase !== 'JOINED' && (
        <ol className="mt-2 flex flex-wrap items-center gap-1.5" aria-label="Tests">
          {lane.tests.map((test) => {
            const now_ = lane.phaseTestId === test.testId && !over;
            const cannot = test.runs.every((run) => run.state === 'COULD_NOT_RUN');
            // In a long round only what somebody may want to look at has its name; the others say it when pointed at.
            const named = lane.tests.length <= NAMED || now_ || test.runs.some((run) => run.state === 'FAILED');
            return (
              <li
                key={test.testId}
                data-now={now_}
                title={
                  cannot
                    ? `${test.name}: ${test.runs[0]?.reasonWords ?? 'cannot run here'}`
                    : named
                      ? undefined
                      : test.name
                }
                className={`flex flex-col gap-1 rounded-md border border-transparent bg-band data-[now=true]:border-leaf data-[now=true]:bg-sheet ${named ? 'min-w-[92px] px-2.5 py-1.5' : 'justify-end px-1.5 py-1.5'}`}
              >
                <span className={named ? undefined : 'sr-only'}>
                  <span className="text-[12.5px] leading-none whitespace-nowrap text-ink-2">
                    {test.name}
                    {test.byHand && <span className="text-ink-3"> by hand</span>}
                  </span>
                </span>
                {cannot ? (
                  <span className="text-[12px] leading-none text-ink-2">{named ? 'can’t run' : '–'}</span>
                ) : (
                  <span className="flex gap-1.5">
                    {test.runs.map((run) => (
                      <RunDot
                        key={run.number}
                        run={run}
                        now={now_ && lane.phaseRun === run.number && lane.phase === 'RUNNING'}
                      />
                    ))}
                  </span>
                )}
              </li>
            );
          })}
        </ol>
      )}
      {lane.sensors.length > 0 && <LiveSensors lines={lane.sensors} />}
      {over && lane.sessionId !== undefined && <RoundScores seatId={lane.seatId} />}
      {lane.late > 0 && <LateRuns seatId={lane.seatId} late={lane.late} />}
      <p className="mt-2 text-[13.5px] text-ink-2">
        {nowInWords(lane, now)}
        {over && lane.sessionId !== undefined && (
          <>
            {' '}
            <Link to="/ledger" search={{ session: lane.sessionId }} className="link">
              Its readings
            </Link>
            {c && (
              <>
                {' · '}
                <Link to="/standings" search={{ base: c.id }} className="link">
                  its place in the standings
                </Link>
                {' · '}
                <Link
                  to="/shelf/configurations/$configurationId/card"
                  params={{ configurationId: String(c.id) }}
                  className="link"
                >
                  its report card
                </Link>
              </>
            )}
          </>
        )}
      </p>
    </article>
  );
}

/** More tests than this are told apart by their dots alone. */
const NAMED = 16;

/** Filled: a score. Crossed: failed. Barred: cut off, run again. Ring: still to come. */
function RunDot({ run, now }: { run: Run; now: boolean }) {
  const words = `run ${run.number}: ${run.state ? runState(run.state) : now ? 'running' : 'to come'}${run.reason ? `, ${reason(run.reason)}` : ''}${run.attempts > 1 ? `, attempt ${run.attempts}` : ''}`;
  return (
    <svg width={13} height={13} viewBox="-6.5 -6.5 13 13" role="img" aria-label={words}>
      <title>{words}</title>
      {run.state === 'OK' ? (
        <circle r={4.4} fill="var(--leaf)" />
      ) : run.state === 'FAILED' ? (
        <path d="M-4 -4L4 4M4 -4L-4 4" stroke="var(--plum)" strokeWidth={2.2} strokeLinecap="round" />
      ) : run.state === 'STOPPED' ? (
        <path d="M-4.4 0H4.4" stroke="var(--gold)" strokeWidth={2.6} strokeLinecap="round" />
      ) : (
        <circle
          r={4}
          fill={now ? 'var(--leaf-soft)' : 'none'}
          stroke={now ? 'var(--leaf)' : 'var(--ink-3)'}
          strokeWidth={now ? 2 : 1.1}
        />
      )}
    </svg>
  );
}

function Orders({ lane, silent, over }: { lane: Lane; silent: boolean; over: boolean }) {
  const [sure, setSure] = useState(false);
  const path = { params: { path: { id: lane.seatId } } };
  const order = useMutation({
    mutationFn: (command: 'GO' | 'PAUSE' | 'STOP') =>
      value(api.POST('/api/bench/seats/{id}/command', { ...path, body: { command } })),
  });
  const end = useMutation({ mutationFn: () => value(api.POST('/api/bench/seats/{id}/end', path)) });
  const clear = useMutation({ mutationFn: () => value(api.DELETE('/api/bench/seats/{id}', path)) });
  const problem = order.error ?? end.error ?? clear.error;
  return (
    <span className="ml-auto flex items-baseline gap-3">
      {problem && (
        <span role="alert" className="small text-plum">
          {problem.message}
        </span>
      )}
      {over ? (
        <button data-changes className="small link" onClick={() => clear.mutate()}>
          Clear
        </button>
      ) : sure ? (
        <>
          <span className="small">Stop it for good?</span>
          <button
            data-changes
            className="small link text-plum"
            autoFocus
            onClick={() => {
              setSure(false);
              order.mutate('STOP');
            }}
          >
            Stop
          </button>
          <button className="small link" onClick={() => setSure(false)}>
            Cancel
          </button>
        </>
      ) : (
        <>
          {lane.phase === 'BY_HAND' && lane.sessionId !== undefined && (
            <Link
              to="/bench/sheet/$sessionId"
              params={{ sessionId: String(lane.sessionId) }}
              className="small link font-semibold"
            >
              Type its scores
            </Link>
          )}
          {lane.command === 'PAUSE' || lane.phase === 'BY_HAND' || lane.phase === 'COOL_UNTIL' ? (
            <button data-changes className="small link" onClick={() => order.mutate('GO')}>
              {lane.phase === 'BY_HAND'
                ? 'Go on without it'
                : lane.phase === 'COOL_UNTIL'
                  ? 'It is cool: go on'
                  : 'Go on'}
            </button>
          ) : (
            lane.command === 'GO' &&
            lane.phase !== 'JOINED' && (
              <button data-changes className="small link" onClick={() => order.mutate('PAUSE')}>
                Pause
              </button>
            )
          )}
          {lane.command !== 'STOP' && (
            <button data-changes className="small link" onClick={() => setSure(true)}>
              Stop
            </button>
          )}
          {(silent || lane.command === 'STOP') && lane.phase !== 'JOINED' && (
            <button
              className="small link"
              title="Ends the session from here, without the device. What it has finished and not sent yet waits for you when it comes."
              onClick={() => end.mutate()}
            >
              End without the device
            </button>
          )}
        </>
      )}
    </span>
  );
}
