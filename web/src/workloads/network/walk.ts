import type { Answer, Measurement, Question } from '../types.ts';

/** In metres from the access point. */
export const DISTANCES: readonly number[] = [1, 3, 5, 7, 10, 15, 20, 30];
export const STEPS: readonly string[] = ['none', ...DISTANCES.map((m) => `${m} m`)];
/** What has to come, all the time. */
export const HELD_MBIT = 10;
export const HOLD_MS = 30_000;
/** Each of these spans must have it: a mean hides a break. */
const SPANS = 6;

/** Whether so much came in every span of the time. @param bytes in steps of equal length */
export function held(samples: readonly number[], least = HELD_MBIT): boolean {
  const span = Math.max(1, Math.floor(samples.length / SPANS));
  for (let at = 0; at + span <= samples.length; at += span) {
    const mean = samples.slice(at, at + span).reduce((sum, x) => sum + x, 0) / span;
    if (mean < least) return false;
  }
  return samples.length > 0;
}

export function goThere(metres: number): Question {
  return {
    title: `Go to ${metres} m`,
    words: [`Stand ${metres} m from the access point, hold the device as you hold it, and keep still for half a minute.`],
    buttons: [
      { key: 'there', label: 'I am there' },
      { key: 'no-farther', label: 'I cannot go farther' },
    ],
  };
}

/**
 * Walks away step by step, until a step no longer holds or nobody can go farther.
 *
 * @param measure what came there, in Mbit/s of equal steps
 */
export async function walk(ask: (question: Question) => Promise<Answer>, measure: (metres: number) => Promise<{ samples: number[]; rate: number; timedMs: number }>): Promise<Measurement> {
  const points: number[] = [];
  let best = 0;
  let timedMs = 0;
  let end = 'the last step was reached';
  for (const metres of DISTANCES) {
    const { button } = await ask(goThere(metres));
    if (button === 'no-farther') {
      end = `nobody could go to ${metres} m`;
      break;
    }
    const there = await measure(metres).catch((error: unknown) => {
      // Out of reach is what is looked for; at the first step it is a failure.
      if (metres === DISTANCES[0] || !(error instanceof TypeError)) throw error;
      return null;
    });
    if (there) {
      points.push(metres, there.rate);
      timedMs += there.timedMs;
    }
    if (!there || !held(there.samples)) {
      end = there ? `${metres} m did not hold ${HELD_MBIT} Mbit/s` : `the connection was lost at ${metres} m`;
      break;
    }
    best++;
  }
  return {
    rate: best + 1,
    samples: [],
    resolution: 1,
    timedMs,
    note: `It ended where ${end}.`,
    ...(points.length >= 4 && { more: [{ metric: 'peak', value: Math.max(...points.filter((_, i) => i % 2 === 1)), resolution: 0, samples: points }] }),
  };
}

