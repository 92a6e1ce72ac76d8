import { useEffect, useState } from 'react';
import type { Schemas } from '../../api/client.ts';
import { KIND_WORDS, type Piece } from '../question/questions.ts';
import { forward, type StageState } from './stage-state.ts';
import { StageSheet } from './StageSheet.tsx';

const SECOND = 1000;

/** What the reviewer sees while the audience sees the other window: now, next, and what to say. */
export function StageDesk({
  page,
  scenes,
  state,
  steps,
  onSteps,
  onKey,
  onGo,
  onOpen,
  onLeave,
}: {
  page: Schemas['WriteUpPage'];
  scenes: readonly Piece[];
  state: StageState;
  steps: number;
  onSteps: (n: number) => void;
  onKey: (key: string) => void;
  onGo: (scene: number) => void;
  onOpen: () => void;
  onLeave: () => void;
}) {
  const now = scenes[state.scene];
  const next = forward(state, steps, scenes.length);
  const last = next.scene === state.scene && next.step === state.step;
  return (
    <div className="fixed inset-0 z-40 grid grid-cols-[3fr_2fr] grid-rows-[auto_1fr] gap-x-6 gap-y-3 overflow-y-auto bg-paper p-5 max-md:grid-cols-1">
      <div className="col-span-full flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-[20px]">{page.writeUp.title}</h1>
        <Elapsed />
        <button className="button" onClick={() => onKey('ArrowLeft')}>
          Back
        </button>
        <button className="button button-main" onClick={() => onKey('ArrowRight')}>
          Next
        </button>
        <button className="button" aria-pressed={state.blank} onClick={() => onKey('b')}>
          {state.blank ? 'Show again' : 'Blank'}
        </button>
        <button className="button" onClick={onOpen}>
          Open the stage
        </button>
        <button className="button" onClick={onLeave}>
          Leave
        </button>
      </div>
      <section aria-label="On the stage">
        <div className="aspect-video w-full overflow-hidden rounded border border-hair">
          <StageSheet page={page} scenes={scenes} state={state} steps={steps} onSteps={onSteps} />
        </div>
        <p className="small mt-1">
          {state.blank ? 'The stage is black. ' : ''}
          {now ? `${KIND_WORDS[now.kind]} ${state.scene + 1} of ${scenes.length}` : 'the title'}
          {steps > 1 &&
            steps < Infinity &&
            (now?.kind === 'FIGURE' && now.body.question.of === 'charts'
              ? `, chart ${Math.min(state.step, steps - 1) + 1} of ${steps}`
              : state.order === 'all'
                ? `, page ${Math.min(state.step, steps - 1) + 1} of ${steps}`
                : `, ${Math.min(state.step, steps - 1)} of ${steps - 1} rows shown`)}
        </p>
        <ol className="mt-3 flex flex-wrap gap-x-4 gap-y-1" aria-label="Everything in it">
          {[undefined, ...scenes].map((piece, i) => (
            <li key={piece?.id ?? 0}>
              <button
                className={i - 1 === state.scene ? 'font-semibold' : 'link'}
                aria-current={i - 1 === state.scene ? 'step' : undefined}
                onClick={() => onGo(i - 1)}
              >
                {piece ? `${i} ${KIND_WORDS[piece.kind]}` : 'title'}
              </button>
            </li>
          ))}
        </ol>
      </section>
      <section className="min-w-0">
        <h2 className="text-[15px]">{last ? 'This is the last' : 'Next'}</h2>
        {!last && (
          <div className="aspect-video w-full overflow-hidden rounded border border-hair" aria-hidden="true">
            <StageSheet
              page={page}
              scenes={scenes}
              state={{ ...next, blank: false }}
              steps={1}
              onSteps={() => undefined}
            />
          </div>
        )}
        <h2 className="mt-4 text-[15px]">Notes</h2>
        <p className="mt-1 text-[20px] leading-snug whitespace-pre-wrap">
          {notesOf(now) || <span className="text-ink-3">No notes here. They are written beside the piece.</span>}
        </p>
      </section>
    </div>
  );
}

function notesOf(piece: Piece | undefined): string {
  return piece && 'notes' in piece.body ? (piece.body.notes ?? '') : '';
}

/** How long it has been shown. */
function Elapsed() {
  const [began] = useState(() => Date.now());
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setSeconds(Math.floor((Date.now() - began) / SECOND)), SECOND);
    return () => clearInterval(timer);
  }, [began]);
  return (
    <span role="timer" className="mr-3 font-title text-[22px] tabular-nums" aria-label="Time since this was opened">
      {Math.floor(seconds / 60)}:{String(seconds % 60).padStart(2, '0')}
    </span>
  );
}
