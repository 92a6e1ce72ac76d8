import { useContext, useEffect, useRef, useState } from 'react';
import { AccessContext } from '../access/access-context.ts';

interface Kept<T> {
  /** What the form began with: a draft made from something else does not fit any more. */
  from: T;
  now: T;
}

const storage = (): Storage | null => {
  try {
    return window.localStorage;
  } catch {
    // A browser that gives the page no storage; leaving then asks.
    return null;
  }
};

function read<T>(key: string, from: T): T | null {
  try {
    const kept = JSON.parse(storage()?.getItem(key) ?? 'null') as Kept<T> | null;
    return kept && JSON.stringify(kept.from) === JSON.stringify(from) ? kept.now : null;
  } catch {
    return null;
  }
}

/** What a form that is not saved yet holds. */
export interface Draft<T> {
  value: T;
  set: (next: T) => void;
  /** One field of it with its setter, as useState gives them. */
  field: <K extends keyof T>(key: K) => [T[K], (next: T[K]) => void];
  /** Whether it is what somebody typed earlier and left. */
  restored: boolean;
  /** It is saved, or not wanted: nothing is offered next time. */
  forget: () => void;
  /** Begins once more from nothing. */
  startAnew: () => void;
}

/**
 * The state of a form, kept for this person and place from the first change until it is saved, and offered again when the
 * form is opened: Escape, the navigation and a reload take nothing away. Where the browser keeps nothing, leaving asks.
 *
 * @param place  names the form and what it is about, such as "plan 7"
 * @param from   what the form begins with
 */
export function useDraft<T>(place: string, from: T): Draft<T> {
  const access = useContext(AccessContext);
  const key = `yarrowmark.draft.${access?.shelf ?? ''}.${access?.person ?? ''}.${place}`;
  const [began] = useState(from);
  const [found] = useState(() => read(key, began));
  const [value, setValue] = useState<T>(found ?? began);
  const [restored, setRestored] = useState(found !== null);
  const [unkept, setUnkept] = useState(false);
  const saved = useRef(false);
  useEffect(() => {
    if (!unkept) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unkept]);
  // Two fields that are set in one event both count.
  const latest = useRef(value);
  const remove = () => {
    try {
      storage()?.removeItem(key);
    } catch {
      // Nothing was kept, so nothing is left.
    }
  };
  const set = (next: T) => {
    latest.current = next;
    setValue(next);
    if (saved.current) return;
    try {
      if (JSON.stringify(next) === JSON.stringify(began)) remove();
      else {
        const shelf = storage();
        if (!shelf) throw new Error('no storage');
        shelf.setItem(key, JSON.stringify({ from: began, now: next } satisfies Kept<T>));
      }
      setUnkept(false);
    } catch {
      setUnkept(true);
    }
  };
  return {
    value,
    restored,
    set,
    field: (of) => [value[of], (next) => set({ ...latest.current, [of]: next })],
    forget: () => {
      saved.current = true;
      setUnkept(false);
      remove();
    },
    startAnew: () => {
      latest.current = began;
      setValue(began);
      setRestored(false);
      setUnkept(false);
      remove();
    },
  };
}

/** Says that a form holds what was typed earlier, and lets it go. */
export function DraftNote({ draft }: { draft: Pick<Draft<unknown>, 'restored' | 'startAnew'> }) {
  if (!draft.restored) return null;
  return (
    <p role="status" className="mb-2 border-l-2 border-gold pl-3">
      This is what you typed here before and did not save.{' '}
      <button type="button" className="link" onClick={draft.startAnew}>
        Discard it
      </button>
    </p>
  );
}
