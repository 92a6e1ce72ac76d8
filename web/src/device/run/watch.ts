/**
 * Notices what disturbs a run: another program that holds the device up, power that comes or goes, a clock that is set.
 * Its one light timer looks twenty times a second, which is nothing to a processor and enough to see a stall.
 */
const LOOK_MS = 50;
/** A gap this long is no hiccup of the browser's own. */
const STALL_MS = 300;
/** The two clocks drift apart by far less than this in any run. */
const CLOCK_MS = 1_500;

interface Clocks {
  /** Steady, in ms. */
  now(): number;
  /** Of the calendar, in ms. */
  date(): number;
}

interface Power extends EventTarget {
  charging: boolean;
}

/** @param idle whether the page itself has nothing to do in this run; else its own work looks like a stall */
export function watchRun(idle: boolean, power: Power | undefined, clocks: Clocks): () => string | null {
  const begin = { now: clocks.now(), date: clocks.date(), charging: power?.charging };
  let last = begin.now;
  let longest = 0;
  let changed = false;
  const look = () => {
    const now = clocks.now();
    longest = Math.max(longest, now - last);
    last = now;
  };
  const powered = () => (changed = true);
  const timer = idle ? setInterval(look, LOOK_MS) : undefined;
  power?.addEventListener('chargingchange', powered);
  return () => {
    clearInterval(timer);
    power?.removeEventListener('chargingchange', powered);
    if (idle) look();
    const apart = Math.abs(clocks.date() - begin.date - (clocks.now() - begin.now));
    const words = [
      longest > STALL_MS && `The page stood still for ${(longest / 1000).toFixed(1)} s: something else was working.`,
      changed &&
        (power!.charging === begin.charging
          ? 'The power came and went.'
          : power!.charging
            ? 'It was plugged in.'
            : 'It was unplugged.'),
      apart > CLOCK_MS && "The device's clock was set; times here go by the other one.",
    ].filter(Boolean);
    return words.length === 0 ? null : words.join(' ').slice(0, 200);
  };
}
