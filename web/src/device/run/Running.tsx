import { useEffect, useState } from 'react';
import { chime } from '../../ui/chime.ts';
import { ChimeChoice } from '../../ui/ChimeChoice.tsx';
import { Asking } from './Asking.tsx';
import type { DeviceSeat } from '../seat/api.ts';
import type { Showing } from './run-session.ts';
import { leftMs, progress, progressWords } from './progress.ts';

/** A longer round is told by a number instead of its tests' names. */
const NAMED = 16;

/** What the round is doing. Nothing here moves by itself: while a test runs, the page is still. */
export function Running({
  seat,
  showing,
  onStop,
  onGoOn,
}: {
  seat: DeviceSeat;
  showing: Showing | null;
  onStop: () => void;
  onGoOn: () => void;
}) {
  const index = seat.tests.findIndex((test) => test.id === showing?.test?.id);
  const at = progress(seat, showing);
  // A round may go on after a reload: what was behind it then says nothing about how long runs take here.
  const [first, setFirst] = useState<number | null>(null);
  if (first === null && index >= 0) setFirst(at.done);
  const words = progressWords(at, leftMs(at, first ?? at.done, showing?.elapsedMs ?? 0));
  const question = showing?.question?.question;
  useEffect(() => {
    // Nobody sits beside a run of hours.
    if (question?.title && question.buttons.length > 0) chime(question.title);
  }, [question]);
  useEffect(() => {
    document.title = `${words} · Yarrowmark`;
  }, [words]);
  return (
    <section className="py-2" aria-live="polite">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h1>{title(showing)}</h1>
          <p className="mt-1 text-[16px] text-ink-2">{explanation(seat, showing)}</p>
        </div>
        {showing?.phase !== 'DONE' && showing?.phase !== 'STOPPED' && (
          <button className="button shrink-0" onClick={onStop}>
            Stop
          </button>
        )}
      </div>
      {(showing?.phase === 'BY_HAND' || showing?.phase === 'COOL_UNTIL') && (
        <p className="mt-4">
          <button className="button button-main" onClick={onGoOn}>
            {showing.phase === 'BY_HAND' ? 'Go on without it' : 'It is cool: go on'}
          </button>
        </p>
      )}
      {showing?.question && <Asking key={showing.question.question.title} asked={showing.question} />}
      {index >= 0 && at.total > 0 && (
        <div className="mt-4">
          <div
            role="progressbar"
            aria-label="Runs done"
            aria-valuenow={at.done}
            aria-valuemax={at.total}
            aria-valuetext={words}
            className="h-1.5 rounded bg-band"
          >
            <div className="h-full rounded bg-leaf" style={{ width: `${(100 * at.done) / at.total}%` }} />
          </div>
          <div className="mt-1 flex flex-wrap items-baseline justify-between gap-x-4">
            <p className="small">
              {words}
              {seat.tests.length > NAMED && `; test ${index + 1} of ${seat.tests.length}`}
            </p>
            <ChimeChoice />
          </div>
        </div>
      )}
      <ol className={seat.tests.length > NAMED ? 'hidden' : 'mt-4 flex flex-wrap gap-x-4 gap-y-1'}>
        {seat.tests.map((test, i) => (
          <li
            key={test.id}
            aria-current={i === index ? 'step' : undefined}
            className={i === index ? 'font-semibold' : 'text-ink-3'}
          >
            {test.name}
          </li>
        ))}
      </ol>
      {showing && showing.waiting > 0 && (
        <p role="status" className="mt-3 border-l-2 border-gold pl-3">
          {showing.waiting} finished {showing.waiting === 1 ? 'run waits' : 'runs wait'} on this device for the server.
          Nothing is lost; leave this page open.
          {showing.trouble && <span className="block text-plum">{showing.trouble}</span>}
        </p>
      )}
      {showing && showing.refused > 0 && (
        <p role="status" className="mt-2 text-plum">
          The server would not take {showing.refused} finished {showing.refused === 1 ? 'run' : 'runs'}. They stay on
          this device, and you can see why at the end.
        </p>
      )}
    </section>
  );
}

function title(showing: Showing | null): string {
  switch (showing?.phase) {
    case 'COOLING':
      return 'A pause';
    case 'PAUSED':
      return 'Paused by the reviewer';
    case 'BY_HAND':
      return `By hand: ${showing.test?.name ?? ''}`;
    case 'COOL_UNTIL':
      return 'Cooling';
    case 'HIDDEN':
      return 'Waiting for this page';
    case 'DONE':
    case 'STOPPED':
      return 'Sending the last results';
    default:
      return showing?.paused ? 'Holding after this run' : (showing?.test?.name ?? 'Getting ready');
  }
}

function explanation(seat: DeviceSeat, showing: Showing | null): string {
  const run = showing?.runNumber ? `run ${showing.runNumber} of ${showing.test?.runs ?? seat.runs}` : '';
  switch (showing?.phase) {
    case 'COOLING':
      return `Next: ${showing.test?.name}, ${run}.`;
    case 'BY_HAND':
      return `${showing.test?.summary ? `${showing.test.summary}. ` : ''}The bench waits for its scores, and goes on by itself when the last one is typed.`;
    case 'COOL_UNTIL':
      return `Wait until it is at most ${showing.test?.pauseUntil ?? ''} °C. Next: ${showing.test?.name}, ${run}.`;
    case 'PAUSED':
      return 'It goes on when the reviewer says so.';
    case 'HIDDEN':
      return 'The page has to be in front for a run to count.';
    case 'DONE':
    case 'STOPPED':
      return 'Leave this page open until it says that it has finished.';
    default:
      if (!run) return '';
      return showing?.question?.question.title ? `${run}.` : `${run}. Leave the device alone.`;
  }
}
