import type { Answer, Measurement, Notes, Question } from '../types.ts';
import { typedLevel, typedWatts, type Look, type Seen } from './level.ts';

export const LOOK_MS = 60_000;
/** Often enough to see a step of some per cent, seldom enough that somebody will do it. */
export const ASK_MS = 15 * 60_000;
/** A page that was away for longer has not worked: what it came back to is another run. */
const AWAY_MS = 10 * 60_000;
/** Two clocks that part by so much between two looks: the device slept, or its clock was set. */
const APART_MS = 2 * LOOK_MS;
/** Below this a device that was off when its page was opened again had gone empty. */
const EMPTY = 5;
/** A level that rises by more, without a charger. */
const RISEN = 2;
const PLUG_MS = 2_000;
const LOOKS_AT_PLUG = 5;
const MINUTE = 60_000;
const LEAST_MINUTES = 1 / 60;

/** What is kept from look to look. */
export interface Kept {
  /** Minutes since the beginning and level, in turn. */
  points: number[];
  watts: number[];
  until: number;
  typed: boolean;
  /** Of the calendar, at the last look. */
  at: number;
  words: string[];
}

export interface Around {
  look: Look;
  /** Steady while the page is there, in ms. */
  now(): number;
  /** Of the calendar, in ms. */
  date(): number;
  /** Resolves after so long; rejects when the run is stopped. */
  wait(ms: number): Promise<void>;
  ask(question: Question, signal?: AbortSignal): Promise<Answer>;
  notes: Notes;
  /** Begins the load; the answer ends it. */
  load(): Promise<() => void> | (() => void);
}

const isKept = (notes: unknown): notes is Kept => typeof notes === 'object' && notes !== null && Array.isArray((notes as Kept).points) && (notes as Kept).points.length >= 2;

const inWords = (minutes: number) => (minutes < 90 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`);

/** Levels from the browser, or from whoever holds the device. */
class Levels {
  private readonly around: Around;
  typed = false;
  constructor(around: Around) {
    this.around = around;
  }

  /** What the level is now; asks until it is a level. */
  async now(title: string): Promise<Seen> {
    const seen = this.typed ? null : await this.around.look();
    if (seen) return seen;
    this.typed = true;
    for (let again = false; ; again = true) {
      const { fields } = await this.around.ask({
        title,
        words: [again ? 'A level lies above 0 and up to 100 %.' : 'This browser does not tell how full the battery is.'],
        fields: [{ key: 'level', label: 'Battery, %', hint: '80' }],
        buttons: [{ key: 'ok', label: 'That is the level' }],
      });
      const level = typedLevel(fields.level);
      if (level !== null) return { level, charging: false };
    }
  }
}

const STOPS = [
  { key: 'end', label: 'Until it is empty', until: 0 },
  { key: 'most', label: 'Down to 20 %', until: 20 },
  { key: 'fifth', label: 'A fifth of it', until: -20 },
] as const;

/**
 * Lets a battery run down, or charge, and keeps its level at each look. A run that was cut off goes on from what was kept,
 * or ends with it where the device was off in between.
 *
 * @param falling whether it runs down; else it charges
 */
export async function runBattery(falling: boolean, around: Around): Promise<Measurement> {
  const levels = new Levels(around);
  const found = await around.notes.read();
  let kept: Kept | null = isKept(found) ? found : null;
  if (kept) {
    levels.typed = kept.typed;
    if (await isOver(kept, falling, around, levels)) return measured(kept, falling);
  } else {
    kept = await begin(falling, around, levels);
    await around.notes.write(kept);
  }
  const end = await around.load();
  try {
    await goOn(kept, falling, around, levels);
  } finally {
    end();
  }
  return measured(kept, falling);
}

async function begin(falling: boolean, around: Around, levels: Levels): Promise<Kept> {
  const first = await levels.now('How full is the battery?');
  const { button } = await around.ask({
    title: falling ? 'How far down?' : 'Charging',
    words: falling
      ? [
          `It is at ${first.level.toFixed(0)} %. Set the brightness and the wireless as your reviews do, then unplug it and let it lie.`,
          first.level < 99 ? 'Hours from full are told only of a battery that begins full; from here it is per cent an hour.' : 'Until it is empty tells hours to 20 % and to the end. A fifth takes the least time, and tells how fast that fifth goes: many batteries go through their first per cents slower.',
        ]
      : [`It is at ${first.level.toFixed(0)} %. Plug it in${first.level > 20 ? '. Times from 20 % need a battery that begins at 20 % or less' : ''}.`],
    buttons: falling ? STOPS.map(({ key, label }) => ({ key, label })) : [{ key: 'full', label: 'It is plugged in' }],
  });
  const chosen = STOPS.find((stop) => stop.key === button);
  const until = !falling ? 100 : !chosen ? 0 : chosen.until < 0 ? Math.max(0, first.level + chosen.until) : chosen.until;
  if (falling && first.level <= until) throw new Error(`The battery is at ${first.level.toFixed(0)} % already. Charge it, and choose again.`);
  if (!falling && first.level >= 100) throw new Error('The battery is full already. Let it run down first.');
  // A system may need some seconds to see the plug, and whoever was asked may have forgotten it.
  for (let tries = 0; !levels.typed; tries++) {
    const seen = await around.look();
    if (!seen || seen.charging !== falling) break;
    if (tries % LOOKS_AT_PLUG !== 0) await around.wait(PLUG_MS);
    else await around.ask({ title: falling ? 'Unplug it' : 'Plug it in', words: [falling ? 'It is still on its charger.' : 'It is not on its charger.'], buttons: [{ key: 'done', label: falling ? 'It is unplugged' : 'It is plugged in' }] });
  }
  const now = levels.typed ? first : ((await around.look()) ?? first);
  return { points: [LEAST_MINUTES, now.level], watts: [], until, typed: levels.typed, at: around.date(), words: [] };
}

const last = (kept: Kept) => ({ minutes: kept.points[kept.points.length - 2]!, level: kept.points[kept.points.length - 1]! });

function add(kept: Kept, minutes: number, level: number): void {
  if (minutes > last(kept).minutes) kept.points.push(Math.round(minutes * 1000) / 1000, level);
}

/** Of a run that is taken up again: whether it ended while the page was away. */
async function isOver(kept: Kept, falling: boolean, around: Around, levels: Levels): Promise<boolean> {
  const before = last(kept);
  const away = around.date() - kept.at;
  const words = (text: string) => kept.words.push(text);
  if (falling && before.level <= EMPTY && (away < 0 || away > 2 * LOOK_MS)) {
    words('It went empty; the last level was seen within a minute before.');
    return true;
  }
  if (away < 0 || away > AWAY_MS) {
    words(`The page was away ${away < 0 ? 'and the clock was set back meanwhile' : `for ${inWords(away / MINUTE)}`}, so the run ends with what was seen before.`);
    return true;
  }
  const seen = await levels.now('The page was away. How full is the battery now?');
  const wrongWay = falling ? seen.charging || seen.level > before.level + RISEN : seen.level < before.level - RISEN;
  if (wrongWay) {
    words(falling ? 'It was charged while the page was away, so the run ends before that.' : 'It was unplugged while the page was away, so the run ends before that.');
    return true;
  }
  words(`The page was away for ${inWords(Math.max(1, away / MINUTE))}.`);
  add(kept, before.minutes + away / MINUTE, seen.level);
  kept.at = around.date();
  await around.notes.write(kept);
  return false;
}

async function goOn(kept: Kept, falling: boolean, around: Around, levels: Levels): Promise<void> {
  // Minutes go by the steady clock from here on, behind what was kept.
  const offset = last(kept).minutes - around.now() / MINUTE;
  let asked = around.now();
  let ended = false;
  const over = new AbortController();
  let enough = () => undefined as void;
  const told = new Promise<void>((resolve) => (enough = resolve));
  const listening = listen(kept, around, over.signal, () => {
    ended = true;
    enough();
  });
  try {
    for (;;) {
      const [now, date] = [around.now(), around.date()];
      await Promise.race([around.wait(LOOK_MS), told]);
      const apart = around.date() - date - (around.now() - now);
      if (Math.abs(apart) > APART_MS) kept.words.push(`The clocks part by ${inWords(Math.abs(apart) / MINUTE)} after ${inWords(offset + around.now() / MINUTE)}: the device slept, or its clock was set.`);
      const minutes = offset + around.now() / MINUTE;
      const due = levels.typed && (ended || around.now() - asked >= ASK_MS);
      let seen = levels.typed ? null : await around.look();
      if (due) {
        seen = await levels.now('How full is the battery now?');
        asked = around.now();
      }
      if (seen) add(kept, due ? offset + around.now() / MINUTE : minutes, seen.level);
      kept.at = around.date();
      await around.notes.write(kept);
      if (seen && !levels.typed && seen.charging === falling) {
        kept.words.push(falling ? `It was plugged in after ${inWords(minutes)}.` : `It was unplugged, or had enough, after ${inWords(minutes)}.`);
        // The level of this look is no longer of the run.
        if (falling && kept.points.length > 4) kept.points.length -= 2;
        return;
      }
      if (seen && (falling ? seen.level <= kept.until : seen.level >= 100)) return;
      if (ended) return;
    }
  } finally {
    over.abort();
    await listening;
  }
}

/** What whoever holds the device may say while the run goes on: what a meter shows, and that it is enough. */
async function listen(kept: Kept, around: Around, signal: AbortSignal, end: () => void): Promise<void> {
  while (!signal.aborted) {
    let answer: Answer;
    try {
      answer = await around.ask(
        {
          title: '',
          words: [
            'Everything is kept on the device each minute, also when the battery goes empty: then charge it and open this page again.',
            ...(kept.watts.length > 0 ? [`${kept.watts.length} ${kept.watts.length === 1 ? 'reading' : 'readings'} of the meter noted.`] : []),
          ],
          fields: [{ key: 'watts', label: 'A meter beside it shows, W', hint: 'optional' }],
          buttons: [
            { key: 'note', label: 'Note it' },
            { key: 'end', label: 'End this run here' },
          ],
        },
        signal,
      );
    } catch {
      return;
    }
    const watts = typedWatts(answer.fields.watts);
    if (watts !== null) {
      kept.watts.push(watts);
      // Nobody types it twice: it does not wait for the next look.
      await around.notes.write(kept);
    }
    if (answer.button === 'end') return end();
  }
}

function measured(kept: Kept, falling: boolean): Measurement {
  const levels = kept.points.filter((_, i) => i % 2 === 1);
  const [first, end] = [levels[0]!, levels[levels.length - 1]!];
  if (levels.length < 2 || (falling ? end >= first : end <= first))
    throw new Error(`The level did not ${falling ? 'fall' : 'rise'} from ${first} % in ${inWords(last(kept).minutes)}. ${kept.words.join(' ')} Give it more time.`);
  const whole = falling && first >= 99 && end <= EMPTY;
  const watts = kept.watts;
  const mean = watts.reduce((sum, w) => sum + w, 0) / watts.length;
  return {
    rate: Math.max(...levels),
    samples: kept.points,
    resolution: 1,
    timedMs: Math.round(last(kept).minutes * MINUTE),
    note: [
      `From ${first} to ${end} % in ${inWords(last(kept).minutes)}${whole || !falling ? '' : ': a part, which tells how fast that part went'}.`,
      kept.typed && 'The levels were typed.',
      ...kept.words,
    ]
      .filter(Boolean)
      .join(' '),
    more: watts.length > 0 ? [{ metric: 'power', value: mean, resolution: 0 }] : [],
  };
}
