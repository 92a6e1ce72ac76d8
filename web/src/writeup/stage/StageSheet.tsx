import { useQuery } from '@tanstack/react-query';
import type { CSSProperties, Ref } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { Guard } from '../../ui/Guard.tsx';
import { Mark } from '../figure/Mark.tsx';
import type { Piece } from '../question/questions.ts';
import { Scene } from './StageScenes.tsx';
import type { StageState } from './stage-state.ts';

/** Of a write-up, what can be shown by itself. */
export function scenesOf(page: Schemas['WriteUpPage']): Piece[] {
  return (page.pieces as Piece[]).filter(
    (p) => p.kind === 'FIGURE' || p.kind === 'VERDICT' || p.kind === 'PHOTO' || p.kind === 'POINTS',
  );
}

/** What the audience sees, as large as the box that it stands in. */
export function StageSheet({
  page,
  scenes,
  state,
  steps,
  onSteps,
  sheet,
}: {
  page: Schemas['WriteUpPage'];
  scenes: readonly Piece[];
  state: StageState;
  /** Of the scene of now. */
  steps: number;
  onSteps: (n: number) => void;
  sheet?: Ref<HTMLDivElement>;
}) {
  const look = useQuery({ queryKey: ['look'], queryFn: () => value(api.GET('/api/look')) });
  const now = scenes[state.scene];
  const accent = look.data?.accent;
  // The accent was chosen for paper: on a dark one it takes as much white as it needs to be read.
  const light = accent && (state.paper === 'light' ? accent : `color-mix(in oklab, ${accent} 45%, white)`);
  return (
    <div
      className={`stage stage-${state.paper} h-full w-full overflow-hidden`}
      data-blank={state.blank}
      style={light ? ({ '--stage-light': light, '--accent': light } as CSSProperties) : undefined}
    >
      {!state.blank && (
        <div ref={sheet} className="stage-sheet" aria-live="polite">
          {now === undefined ? (
            <div className="flex h-full flex-col justify-center">
              <h1 className="stage-title">{page.writeUp.title}</h1>
              {page.writeUp.subtitle && <p className="stage-sub">{page.writeUp.subtitle}</p>}
              {scenes.length === 0 && <p className="stage-sub">There is no figure in it yet.</p>}
            </div>
          ) : (
            <Guard key={now.id} of={now.body} what="This scene">
              <Scene piece={now} step={state.step} order={state.order} onSteps={onSteps} />
            </Guard>
          )}
          <div className="stage-foot">
            <span className="flex items-center gap-[0.4em]">
              {look.data?.mark && (
                <span className="stage-mark">
                  <Mark mark={look.data.mark} />
                </span>
              )}
              <span>{look.data?.name}</span>
            </span>
            {steps > 1 && steps < Infinity && (
              <span>
                {Math.min(state.step, steps - 1)} of {steps - 1} shown
              </span>
            )}
          </div>
        </div>
      )}
    </div>
  );
}
