import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { moment } from '../format/format.ts';
import type { Unsent, UnsentStore } from './store.ts';
import { useUnsent } from './use-unsent.ts';

interface Kept<T> {
  /** What the form began with. */
  from: T;
  now: T;
}

/** What was typed at this place in a tab that is gone, and not saved. */
export interface LeftDraft {
  key: string;
  since: string;
  /** What is in it, in lines to read. */
  lines: string[];
  /** Whether what the form is about is another by now. */
  outdated: boolean;
}

/** What a form that is not saved yet holds. */
export interface Draft<T> {
  value: T;
  set: (next: T) => void;
  /** One field of it with its setter, as useState gives them. */
  field: <K extends keyof T>(key: K) => [T[K], (next: T[K]) => void];
  /** When it was typed, where it is what somebody typed earlier here and left. */
  restored: string | undefined;
  /** What other visits left here. */
  left: readonly LeftDraft[];
  insert: (left: LeftDraft) => void;
  discard: (left: LeftDraft) => void;
  /** It is saved, or not wanted: nothing is offered next time. */
  forget: () => void;
  /** Begins once more from nothing. */
  startAnew: () => void;
}

/**
 * The state of a form, kept for this person and place from the first change until it is saved: Escape, the navigation and a
 * reload take nothing away. Each tab has its own; what a closed one left is offered. Where the browser keeps nothing, leaving
 * asks.
 *
 * @param place  names the form and what it is about, such as "plan 7"
 * @param from   what the form begins with
 */
export function useDraft<T>(place: string, from: T): Draft<T> {
  const unsent = useUnsent();
  const [began] = useState(from);
  const [key] = useState(() => `${place}\n${unsent.tab}`);
  const [found] = useState(() => {
    const mine = unsent.get('form', key);
    return mine && same((mine.body as Kept<T>).from, began) ? mine : undefined;
  });
  const [value, setValue] = useState<T>(found ? (found.body as Kept<T>).now : began);
  const [restored, setRestored] = useState(found?.since);
  /** What this form wrote; what stands under its key and is not from it is of an earlier visit. */
  const [wrote, setWrote] = useState(found !== undefined);
  // Two fields that are set in one event both count.
  const latest = useRef(value);
  const saved = useRef(false);
  const unkept = useSyncExternalStore(unsent.subscribe, () => !unsent.keeps);
  const asks = unkept && !same(value, began);
  useEffect(() => {
    if (!asks) return;
    const ask = (event: BeforeUnloadEvent) => {
      if (!saved.current) event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [asks]);
  const left = useLeft(unsent, place, wrote ? key : undefined, began);

  const keep = (next: T) => {
    setAside();
    if (same(next, began)) unsent.remove('form', key);
    else unsent.put('form', key, { from: began, now: next } satisfies Kept<T>);
  };
  /** What an earlier visit of this tab left, and which does not fit, goes under a name of its own. */
  const setAside = () => {
    if (wrote) return;
    const there = unsent.get('form', key);
    if (there) move(unsent, there, place);
    setWrote(true);
  };
  const set = (next: T) => {
    latest.current = next;
    setValue(next);
    if (!saved.current) keep(next);
  };
  const fresh = (next: T, since?: string) => {
    latest.current = next;
    setValue(next);
    setRestored(since);
  };
  return {
    value,
    restored,
    left,
    set,
    field: (of) => [value[of], (next) => set({ ...latest.current, [of]: next })],
    insert: ({ key: other }) => {
      const kept = unsent.get('form', other);
      if (!kept) return;
      const mine = wrote ? unsent.get('form', key) : undefined;
      if (mine) move(unsent, mine, place);
      unsent.remove('form', other);
      fresh((kept.body as Kept<T>).now, kept.since);
      keep((kept.body as Kept<T>).now);
    },
    discard: ({ key: other }) => unsent.remove('form', other),
    forget: () => {
      saved.current = true;
      if (wrote) unsent.remove('form', key);
    },
    startAnew: () => {
      fresh(began);
      unsent.remove('form', key);
    },
  };
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

function move(unsent: UnsentStore, kept: Unsent, place: string) {
  unsent.remove('form', kept.key);
  unsent.put('form', `${place}\n${kept.order}`, kept.body, kept.since);
}

/** Drafts of a place that no open tab goes on with. */
function useLeft<T>(unsent: UnsentStore, place: string, own: string | undefined, began: T): readonly LeftDraft[] {
  const found = useRef<{ of: string; left: readonly LeftDraft[] }>({ of: '', left: [] });
  return useSyncExternalStore(unsent.subscribe, () => {
    const there = unsent
      .all('form', `${place}\n`)
      .filter((kept) => kept.key !== own && !unsent.lives(kept.key.slice(place.length + 1)));
    const of = there.map((kept) => kept.key + kept.order).join();
    if (found.current.of !== of)
      found.current = {
        of,
        left: there.map((kept) => ({
          key: kept.key,
          since: kept.since,
          lines: linesOf((kept.body as Kept<T>).now),
          outdated: !same((kept.body as Kept<T>).from, began),
        })),
      };
    return found.current.left;
  });
}

/** Each thing that was typed, with the name of its field. */
function linesOf(of: unknown, name = ''): string[] {
  if (of === null || of === undefined || of === '' || of === false) return [];
  if (typeof of === 'object')
    return Object.entries(of).flatMap(([key, value]) => linesOf(value, Array.isArray(of) ? name : key));
  const words = typeof of === 'string' ? of : JSON.stringify(of);
  return [name ? `${name}: ${words}` : words];
}

/** Says that a form holds what was typed earlier, offers what other visits left, and lets either go. */
export function DraftNote({ draft }: { draft: Pick<Draft<unknown>, 'restored' | 'startAnew' | 'left'> & Offers }) {
  return (
    <>
      {draft.restored && (
        <p role="status" className="mb-2 border-l-2 border-gold pl-3">
          This is what you typed here {moment(draft.restored)} and did not save.{' '}
          <button type="button" className="link" onClick={draft.startAnew}>
            Discard it
          </button>
        </p>
      )}
      {draft.left.map((left) => (
        <LeftNote key={left.key} left={left} draft={draft} />
      ))}
    </>
  );
}

type Offers = Pick<Draft<unknown>, 'insert' | 'discard'>;

function LeftNote({ left, draft }: { left: LeftDraft; draft: Offers }) {
  const [viewing, setViewing] = useState(false);
  return (
    <div role="status" className="mb-2 border-l-2 border-gold pl-3">
      Not saved, from {moment(left.since)}
      {left.outdated && ', before what it is about was changed'}:{' '}
      <button type="button" className="link" onClick={() => draft.insert(left)}>
        Insert
      </button>{' '}
      ·{' '}
      <button type="button" className="link" aria-expanded={viewing} onClick={() => setViewing(!viewing)}>
        View
      </button>{' '}
      ·{' '}
      <button type="button" className="link" onClick={() => draft.discard(left)}>
        Discard
      </button>
      {viewing && (
        <ul className="small">
          {left.lines.map((line, i) => (
            // Lines can be alike, and their order does not change.
            <li key={i}>{line}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
