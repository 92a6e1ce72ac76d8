import { useQuery } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { api, value, type Schemas } from '../../api/client.ts';
import { useTitle } from '../../shell/title.ts';
import { Ready } from '../../ui/states.tsx';
import { useRecorder } from './recorder.ts';
import { StageDesk } from './StageDesk.tsx';
import { hasRows } from './StageScenes.tsx';
import { scenesOf, StageSheet } from './StageSheet.tsx';
import { afterKey, useStageState } from './stage-state.ts';

const route = getRouteApi('/write-ups/$writeUpId/stage');

/** One thing after the other, full screen, for a camera or a room. */
export function StageView() {
  const id = Number(route.useParams().writeUpId);
  const page = useQuery({
    queryKey: ['write-up', id],
    queryFn: () => value(api.GET('/api/write-ups/{id}', { params: { path: { id } } })),
  });
  return (
    <Ready query={page} what="the write-up">
      {(p) => <Stage page={p} />}
    </Ready>
  );
}

function Stage({ page }: { page: Schemas['WriteUpPage'] }) {
  const navigate = useNavigate();
  const { desk } = route.useSearch();
  const id = page.writeUp.id;
  const scenes = useMemo(() => scenesOf(page), [page]);
  const [state, change] = useStageState(id);
  /** How many steps the scene of now has. */
  const [steps, setSteps] = useState({ scene: -1, of: 1 });
  // A clicker is quicker than the numbers: what is pressed before they are there reveals rows and does not skip them.
  const unknown = hasRows(scenes[state.scene]) ? Infinity : 1;
  const stepsNow = steps.scene === state.scene ? steps.of : unknown;
  const onSteps = useCallback((of: number) => setSteps({ scene: state.scene, of }), [state.scene]);
  const sheet = useRef<HTMLDivElement>(null);
  useTitle(`Stage: ${page.writeUp.title}`);
  const leave = useCallback(() => {
    if (document.fullscreenElement) void document.exitFullscreen();
    void navigate({ to: '/write-ups/$writeUpId', params: { writeUpId: String(id) } });
  }, [navigate, id]);
  const { record, recording, refused } = useRecorder(page.writeUp.title, sheet, state.paper);
  const split = useCallback(() => {
    window.open(`/write-ups/${id}/stage`, `yarrowmark-stage-${id}`, 'popup,width=1280,height=720');
    void navigate({ to: '/write-ups/$writeUpId/stage', params: { writeUpId: String(id) }, search: { desk: true } });
  }, [navigate, id]);
  // Said until the first key, in this browser; afterwards when somebody asks.
  const [help, setHelp] = useState(() => localStorage.getItem(KEYS_KNOWN) === null);
  const known = useCallback(() => {
    localStorage.setItem(KEYS_KNOWN, 'yes');
    setHelp(false);
  }, []);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (event.target instanceof HTMLTextAreaElement) return;
      // What is pressed by its own key is pressed, and does not step as well.
      if (event.target instanceof HTMLButtonElement && (event.key === 'Enter' || event.key === ' ')) return;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const to = afterKey(state, event.key, stepsNow, scenes.length);
      if (event.key === '?') setHelp((shown) => !shown);
      else known();
      if (to) change(to);
      else if (event.key === 'f') void document.documentElement.requestFullscreen?.().catch(() => undefined);
      else if (event.key === 'r' && !desk) void record();
      else if (event.key === 'w') split();
      else if (event.key === 'Escape') leave();
      else if (event.key !== '?') return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', keys, true);
    return () => window.removeEventListener('keydown', keys, true);
  }, [state, change, stepsNow, scenes.length, leave, record, split, desk, known]);
  useUnderneath(desk !== true);
  if (desk)
    return (
      <StageDesk
        page={page}
        scenes={scenes}
        state={state}
        steps={stepsNow}
        onSteps={onSteps}
        onKey={(key) => {
          const to = afterKey(state, key, stepsNow, scenes.length);
          if (to) change(to);
        }}
        onGo={(scene) => change({ ...state, scene, step: 0, blank: false })}
        onOpen={split}
        onLeave={leave}
      />
    );
  return createPortal(
    <div className="fixed inset-0 z-40">
      <StageSheet page={page} scenes={scenes} state={state} steps={stepsNow} onSteps={onSteps} sheet={sheet} />
      <p className="stage-help" data-shown={help}>
        arrows or space: step · <kbd>b</kbd> blank · <kbd>p</kbd> paper · <kbd>o</kbd> order:{' '}
        {state.order === 'all' ? 'all at once' : `${state.order} first`} · <kbd>f</kbd> full screen · <kbd>w</kbd>{' '}
        second window with notes · <kbd>r</kbd> {recording ? 'ends the recording' : 'records a clip'} · <kbd>?</kbd>{' '}
        these keys · Esc leaves {refused && <span role="alert">{refused} </span>}
        <button className="link" onClick={leave}>
          Leave
        </button>
      </p>
    </div>,
    document.body,
  );
}

const KEYS_KNOWN = 'yarrowmark.stage-keys';

/** While the stage covers the program, nothing below it is reached by Tab or read out. */
function useUnderneath(covered: boolean) {
  useEffect(() => {
    const root = document.getElementById('root');
    if (!covered || !root) return;
    root.inert = true;
    return () => {
      root.inert = false;
    };
  }, [covered]);
}
