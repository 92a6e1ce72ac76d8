import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize, relative } from 'node:path';
import { expect, test } from 'vitest';

/**
 * Which room may use which. A view uses the rooms below it; where it uses another view, that is said here, so that a new
 * arrow is a decision. The rooms that are for all know no view.
 */
const BELOW = ['access', 'api', 'chart', 'export', 'format', 'shell', 'ui', 'unsent'];
const MAY_USE: Record<string, readonly string[]> = {
  api: [],
  workloads: [],
  format: ['api'],
  chart: ['format'],
  ui: ['api', 'format', 'shell'],
  export: ['api', 'chart', 'format', 'ui'],
  // Search and the table lead to what is found; a sign-in stands around everything; what waits to be sent is said everywhere.
  shell: ['access', 'api', 'chart', 'format', 'sheet', 'ui', 'unsent'],
  access: ['api', 'shell', 'ui'],
  // What is typed and not stored yet, of whoever is signed in.
  unsent: ['access', 'format', 'ui'],
  evidence: ['api', 'format', 'ui'],
  // The page on a device has an entry of its own and stays small.
  device: ['api', 'bench', 'format', 'shell', 'ui', 'unsent', 'workloads'],
  bench: BELOW,
  compare: [...BELOW, 'ledger', 'plans', 'workloads', 'writeup'],
  kept: BELOW,
  ledger: [...BELOW, 'bench', 'evidence', 'shelf', 'suites'],
  people: BELOW,
  plans: [...BELOW, 'suites'],
  sheet: [...BELOW, 'bench', 'evidence', 'suites'],
  shelf: [...BELOW, 'writeup'],
  // One line of everything: it shows the lines of the other views, and opens them.
  today: [...BELOW, 'bench', 'compare', 'people', 'shelf', 'sheet', 'trends', 'writeup'],
  standings: [...BELOW, 'plans', 'shelf', 'writeup'],
  suites: [...BELOW, 'workloads'],
  trends: [...BELOW, 'plans', 'writeup'],
  writeup: [...BELOW, 'compare', 'standings'],
};

/**
 * The same inside of the large rooms: whatever stands in the room itself puts it together and may use all of its parts; a part
 * uses the parts that are named here.
 */
const PARTS_MAY_USE: Record<string, Record<string, readonly string[]>> = {
  compare: { line: [] },
  ledger: { spreadsheet: [] },
  device: { seat: [], hardware: ['seat'], run: ['seat', 'hardware'] },
  shelf: { part: [], fact: [], configuration: ['part', 'fact'], model: ['part'] },
  standings: { question: [], plot: ['question'], list: ['question'], card: ['question'] },
  writeup: {
    question: [],
    figure: ['question'],
    text: ['question'],
    piece: ['question', 'figure', 'text'],
    stage: ['question', 'figure'],
  },
};

const SRC = import.meta.dirname;
const room = (file: string) => relative(SRC, file).split('/')[0]!;

function filesOf(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return ['generated', 'testing', 'assembly'].includes(entry.name) ? [] : filesOf(path);
    return /\.tsx?$/.test(entry.name) && !/\.(test|d)\.tsx?$/.test(entry.name) ? [path] : [];
  });
}

const files = filesOf(SRC);
const uses = new Map(
  files.map((file) => [
    file,
    [...readFileSync(file, 'utf8').matchAll(/(?:from |import\()'(\.[^'?]*\.tsx?)'/g)].map((found) =>
      normalize(join(dirname(file), found[1]!)),
    ),
  ]),
);

test('every arrow between rooms is one that is allowed, and every allowed one is used', () => {
  const seen = new Map<string, Set<string>>();
  const wrong: string[] = [];
  for (const [file, used] of uses) {
    const from = room(file);
    // The entries, which put the program together.
    if (from.includes('.')) continue;
    for (const other of used) {
      const to = room(other);
      if (to === from) continue;
      seen.set(from, (seen.get(from) ?? new Set()).add(to));
      if (!MAY_USE[from]?.includes(to))
        wrong.push(
          `${relative(SRC, file)} uses ${relative(SRC, other)}: ${from} may use ${MAY_USE[from]?.join(', ') || 'nothing'}`,
        );
    }
  }
  expect(wrong).toEqual([]);
  const unused = Object.entries(MAY_USE).flatMap(([from, may]) =>
    may.filter((to) => !BELOW.includes(to) && !seen.get(from)?.has(to)).map((to) => `${from} → ${to}`),
  );
  expect(unused, 'an arrow that nobody needs any more goes').toEqual([]);
});

test('the parts of a large room use each other one way', () => {
  const seen = new Set<string>();
  const wrong: string[] = [];
  const part = (file: string) => relative(SRC, file).split('/').slice(1, -1)[0];
  for (const [file, used] of uses) {
    const parts = PARTS_MAY_USE[room(file)];
    const from = part(file);
    if (!parts || !from) continue;
    for (const other of used.filter((u) => room(u) === room(file) && part(u) !== from)) {
      const to = part(other);
      if (to === undefined || !parts[from]?.includes(to))
        wrong.push(`${relative(SRC, file)} uses ${relative(SRC, other)}`);
      seen.add(`${room(file)}: ${from} → ${to}`);
    }
  }
  expect(wrong).toEqual([]);
  const unused = Object.entries(PARTS_MAY_USE).flatMap(([of, parts]) =>
    Object.entries(parts).flatMap(([from, may]) =>
      may.map((to) => `${of}: ${from} → ${to}`).filter((way) => !seen.has(way)),
    ),
  );
  expect(unused, 'an arrow that nobody needs any more goes').toEqual([]);
});

test('no files use each other in a circle', () => {
  const done = new Set<string>();
  const way: string[] = [];
  const circles: string[] = [];
  const walk = (file: string) => {
    if (way.includes(file)) {
      circles.push([...way.slice(way.indexOf(file)), file].map((f) => relative(SRC, f)).join(' → '));
      return;
    }
    if (done.has(file)) return;
    way.push(file);
    uses.get(file)?.forEach(walk);
    way.pop();
    done.add(file);
  };
  files.forEach(walk);
  expect(circles).toEqual([]);
});
