import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Picked } from './NumberPicker.tsx';
import { PointingContext, type Pointing } from './pointing.ts';

/** Lets the pieces within pick numbers from each other, and says so while they do. */
export function PointingArea({ children }: { children: ReactNode }) {
  const [pick, setPick] = useState<{ take: (picked: Picked) => void; leave: () => void }>();
  const bar = useRef<HTMLDivElement>(null);
  const pointing = useMemo(
    (): Pointing => ({
      pick:
        pick &&
        ((picked) => {
          setPick(undefined);
          pick.take(picked);
        }),
      begin: (take, leave) => setPick({ take, leave }),
    }),
    [pick],
  );
  useEffect(() => {
    if (!pick) return;
    bar.current?.focus();
    const keys = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.preventDefault();
      event.stopPropagation();
      setPick(undefined);
      pick.leave();
    };
    window.addEventListener('keydown', keys, true);
    return () => window.removeEventListener('keydown', keys, true);
  }, [pick]);
  return (
    <PointingContext value={pointing}>
      {pick && (
        <div
          ref={bar}
          tabIndex={-1}
          role="status"
          className="sticky top-2 z-10 mb-2 flex items-baseline gap-3 rounded border border-gold bg-sheet px-4 py-2 outline-none"
        >
          Press a number in a figure, a table or the facts of this page.
          <button
            className="link ml-auto"
            onClick={() => {
              setPick(undefined);
              pick.leave();
            }}
          >
            Leave it
          </button>
        </div>
      )}
      {children}
    </PointingContext>
  );
}
