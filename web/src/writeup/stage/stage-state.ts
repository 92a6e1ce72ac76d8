import { useCallback, useEffect, useRef, useState } from 'react';
import { ORDERS, type Order } from './stage-order.ts';

export const PAPERS = ['dark', 'light', 'key', 'clear'] as const;
export type Paper = (typeof PAPERS)[number];

/** What is on the stage. @param scene −1 for the title. @param step how many rows are revealed */
export interface StageState {
  scene: number;
  step: number;
  blank: boolean;
  paper: Paper;
  order: Order;
}

export const BEGINNING: StageState = { scene: -1, step: 0, blank: false, paper: 'dark', order: 'worst' };

const FORWARD = ['ArrowRight', 'ArrowDown', ' ', 'PageDown', 'Enter'];
const BACK = ['ArrowLeft', 'ArrowUp', 'PageUp', 'Backspace'];

function next<T>(all: readonly T[], now: T): T {
  return all[(all.indexOf(now) + 1) % all.length]!;
}

/** One step forward: the next row, or the next scene. @param steps of the scene of now */
export function forward(now: StageState, steps: number, scenes: number): StageState {
  if (now.step < steps - 1) return { ...now, step: now.step + 1 };
  return now.scene < scenes - 1 ? { ...now, scene: now.scene + 1, step: 0 } : now;
}

/** What a key, or a clicker that sends one, makes of the stage; nothing for a key that it does not know. */
export function afterKey(now: StageState, key: string, steps: number, scenes: number): StageState | undefined {
  if (FORWARD.includes(key)) return forward(now, steps, scenes);
  if (BACK.includes(key)) {
    // Whoever was quicker than the numbers may have pressed more often than there are rows.
    const at = Math.min(now.step, steps - 1);
    return at > 0 ? { ...now, step: at - 1 } : { ...now, scene: Math.max(-1, now.scene - 1), step: 0 };
  }
  if (key === 'b' || key === '.') return { ...now, blank: !now.blank };
  if (key === 'p') return { ...now, paper: next(PAPERS, now.paper) };
  if (key === 'o') return { ...now, order: next(ORDERS, now.order), step: 0 };
  return undefined;
}

type Message = { kind: 'hello' } | { kind: 'state'; state: StageState };

/** The same stage in every window of this browser: whichever changes it tells the others. */
export function useStageState(writeUp: number): [StageState, (next: StageState) => void, boolean] {
  const [state, setState] = useState(BEGINNING);
  const [others, setOthers] = useState(false);
  const latest = useRef(state);
  const channel = useRef<BroadcastChannel>(undefined);
  useEffect(() => {
    const own = new BroadcastChannel(`yarrowmark-stage-${writeUp}`);
    channel.current = own;
    own.onmessage = (event: MessageEvent<Message>) => {
      setOthers(true);
      if (event.data.kind === 'hello') own.postMessage({ kind: 'state', state: latest.current } satisfies Message);
      else {
        latest.current = event.data.state;
        setState(event.data.state);
      }
    };
    own.postMessage({ kind: 'hello' } satisfies Message);
    return () => own.close();
  }, [writeUp]);
  const change = useCallback((to: StageState) => {
    latest.current = to;
    setState(to);
    channel.current?.postMessage({ kind: 'state', state: to } satisfies Message);
  }, []);
  return [state, change, others];
}
