import { useEffect, useState } from 'react';
import { shown } from './stopwatch.ts';

/** Starts and stops with a thumb or the space bar. A lap is a run: it is stored, and the watch goes on for the next one. */
export function Stopwatch({
  since,
  onStart,
  onStop,
  onLap,
  onReset,
}: {
  since: number | null;
  onStart: () => void;
  onStop: () => void;
  onLap: () => void;
  onReset: () => void;
}) {
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === null) return;
    let frame = requestAnimationFrame(function tick(time) {
      setNow(time);
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [since]);
  return (
    <section aria-label="Stopwatch" className="mt-5">
      <p role="timer" className="font-title text-[34px] tabular-nums">
        {since === null ? '0.00' : shown(Math.max(0, now - since))}
      </p>
      {since === null ? (
        <button type="button" className="button button-main w-full py-3 text-[17px]" onClick={onStart}>
          Start <kbd>Space</kbd>
        </button>
      ) : (
        <>
          <button type="button" className="button button-main w-full py-3 text-[17px]" onClick={onStop}>
            Stop and save <kbd>Space</kbd>
          </button>
          <p className="mt-2 flex gap-2">
            <button type="button" className="button flex-1" onClick={onLap}>
              Lap <kbd>l</kbd>
            </button>
            <button type="button" className="button flex-1" onClick={onReset}>
              Reset
            </button>
          </p>
        </>
      )}
      <p className="small mt-2">A hand adds about 0.2 s; such a time is stored as known to 0.2 s.</p>
    </section>
  );
}
