import { seeded } from '../random.ts';

/** A piece of plain JavaScript work: one round of it, and what it answers. */
export interface Piece {
  /** How much of the test's unit one round is. */
  perRound: number;
  answer: number;
  prepare(): () => number | Promise<number>;
}

const EMPTY = 0x811c9dc5;
const fold = (h: number, word: number) => Math.imul(h ^ word, 0x01000193) >>> 0;

export function foldText(text: string, digest = EMPTY): number {
  let h = digest;
  for (let i = 0; i < text.length; i++) h = fold(h, text.charCodeAt(i));
  return h;
}

const NAMES = ['Marsh harrier', 'Grey heron', 'Common tern', 'Reed bunting', 'Water rail', 'Little egret', 'Kingfisher', 'Bearded tit'];
const PLACES = ['Upper weir', 'Tarn', 'Salt creek', 'East reedbed', 'Mudflat', 'Sluice'];

export interface Sighting { id: number; species: string; count: number; place: string; at: string; notes: string[]; where: { row: number; column: number } }

export function makeSurvey(seed: number, size: number): Sighting[] {
  const random = seeded(seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  return Array.from({ length: size }, (_, id) => ({
    id,
    species: pick(NAMES),
    count: Math.floor(random() * 400),
    place: pick(PLACES),
    at: `2026-${String(1 + Math.floor(random() * 12)).padStart(2, '0')}-${String(1 + Math.floor(random() * 28)).padStart(2, '0')}`,
    notes: Array.from({ length: Math.floor(random() * 4) }, () => `${pick(NAMES)} "calling" near ${pick(PLACES)}\n`),
    where: { row: Math.floor(random() * 60), column: Math.floor(random() * 60) },
  }));
}

/** Reading, changing and writing a survey as JSON, and making a report of it with string work. */
const surveyBook: Piece = {
  perRound: 1,
  answer: 572_187_157,
  prepare() {
    const text = JSON.stringify(makeSurvey(311, 600));
    return () => {
      const survey = JSON.parse(text) as Sighting[];
      const totals: Record<string, number> = {};
      for (const s of survey) {
        const key = `${s.species.toLowerCase().replace(/[^a-z]+/g, '-')}@${s.place.split(' ').at(-1)}`;
        totals[key] = (totals[key] ?? 0) + s.count;
        s.notes = s.notes.map((note) => note.trim().replaceAll('"', "'"));
      }
      const report = Object.keys(totals).sort((a, b) => (a < b ? -1 : 1)).map((key) => `${key.padEnd(30, '.')}${totals[key]!.toString().padStart(7)}`).join('\n');
      return foldText(JSON.stringify(survey), foldText(report));
    };
  },
};

/** Sorting numbers in typed arrays, and records by two of their fields. */
const tideSort: Piece = {
  perRound: 1,
  answer: 1_728_120_865,
  prepare() {
    const random = seeded(97);
    const levels = Float64Array.from({ length: 40_000 }, () => random() * 1000 - 500);
    const counts = Uint32Array.from({ length: 40_000 }, () => Math.floor(random() * 4_000_000_000));
    const survey = makeSurvey(98, 1500);
    return () => {
      const sortedLevels = levels.slice().sort();
      const sortedCounts = counts.slice().sort();
      const sortedSurvey = [...survey].sort((a, b) => b.count - a.count || a.id - b.id);
      let h = EMPTY;
      for (let i = 0; i < 40_000; i += 37) h = fold(fold(h, Math.floor(sortedLevels[i]! * 1000)), sortedCounts[i]!);
      return sortedSurvey.reduce((sum, s) => fold(sum, s.id), h);
    };
  },
};

/** Promises that wait for each other, in rows and all at once, and timers. */
const relay: Piece = {
  perRound: 1,
  answer: 2_500_500,
  prepare() {
    const pass = async (baton: number): Promise<number> => baton + 1;
    return async () => {
      let sum = 0;
      let baton = 0;
      for (let leg = 0; leg < 1_000; leg++) {
        baton = await pass(baton);
        sum += baton;
      }
      const all = await Promise.all(Array.from({ length: 2_000 }, (_, i) => Promise.resolve(i).then((v) => v + 1)));
      sum += all.reduce((a, b) => a + b, 0) - 1_000;
      // One row of timers at once: one after the other they would be held back by the browser.
      await Promise.all(Array.from({ length: 8 }, () => new Promise<void>((resolve) => setTimeout(resolve, 0))));
      return sum;
    };
  },
};

/** Text that is searched for words, patterns and the longest line. */
const marginSearch: Piece = {
  perRound: 1,
  answer: 743_290_212,
  prepare() {
    const random = seeded(55);
    const words = [...NAMES, ...PLACES].flatMap((name) => name.split(' '));
    let text = '';
    while (text.length < 400_000) text += words[Math.floor(random() * words.length)]! + (random() < 0.08 ? '.\n' : ' ');
    return () => {
      let h = EMPTY;
      for (const word of ['heron', 'Grey heron', 'reedbed', 'egret', 'stoat']) {
        let found = 0;
        for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1)) found = fold(found, at);
        h = fold(h, found);
      }
      let matches = 0;
      for (const match of text.matchAll(/\b[A-Z][a-z]+ (?:weir|tern|rail)\b(?=[^\n]*\.)/g)) matches = fold(matches, match.index);
      const lines = text.split('\n');
      const longest = lines.reduce((best, line) => (line.length > best.length ? line : best), '');
      return foldText(longest.toUpperCase(), fold(fold(h, matches), lines.length));
    };
  },
};

/** Numbers in plain JavaScript: primes, a product of matrices, and points that wander off or stay. */
const plotNumbers: Piece = {
  perRound: 1,
  answer: 930_472_859,
  prepare() {
    return () => {
      const sieve = new Uint8Array(60_000);
      let primes = 0;
      for (let i = 2; i < sieve.length; i++) {
        if (sieve[i]) continue;
        primes++;
        for (let j = i * i; j < sieve.length; j += i) sieve[j] = 1;
      }
      const side = 48;
      const rows = Array.from({ length: side }, (_, r) => Array.from({ length: side }, (_, c) => ((r * 7 + c * 3) % 11) - 5));
      let trace = 0;
      for (let r = 0; r < side; r++) {
        for (let c = 0; c < side; c++) {
          let sum = 0;
          for (let k = 0; k < side; k++) sum += rows[r]![k]! * rows[k]![c]!;
          trace = (trace * 31 + sum) | 0;
        }
      }
      let stayed = 0;
      for (let row = 0; row < 60; row++) {
        for (let column = 0; column < 90; column++) {
          const [a, b] = [column / 30 - 2.1, row / 30 - 1];
          let [x, y, steps] = [0, 0, 0];
          while (steps < 60 && x * x + y * y < 4) {
            [x, y] = [x * x - y * y + a, 2 * x * y + b];
            steps++;
          }
          stayed += steps;
        }
      }
      return fold(fold(fold(EMPTY, primes), trace), stayed);
    };
  },
};

export const PIECES: Record<string, Piece> = {
  'desk-survey-book': surveyBook,
  'desk-tide-sort': tideSort,
  'desk-relay': relay,
  'desk-margin-search': marginSearch,
  'desk-plot-numbers': plotNumbers,
};
