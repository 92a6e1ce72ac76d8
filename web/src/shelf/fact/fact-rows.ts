import type { Schemas } from '../../api/client.ts';

export type Entry = Schemas['VocabularyEntry'];
type FactPart = Schemas['FactPart'];

/** A fact in the form, before it is saved. */
export interface FactRow {
  key: string;
  label: string;
  group: string;
  example: string;
  /** What it is now, as people write it; null where the configuration does not have it yet. */
  kept: string | null;
  /** The same to the last digit, where what people write is rounded. */
  exact?: string | undefined;
  /** What is typed; equal to what is kept where nobody touched it. */
  text: string;
  /** Whether the text comes from what a tool printed. */
  read: boolean;
  removed: boolean;
}

/** Groups in which a reviewer looks for a fact, in the order of the vocabulary. */
export const GROUPS = [
  'Processor',
  'Memory',
  'Graphics',
  'Storage',
  'Board and firmware',
  'Operating system',
  'Drivers',
  'Browser',
  'Power',
  'Display',
  'Cooling',
  'Room',
  'Other',
];

/** Facts that a configuration made by hand begins with: those that move scores most. */
const FIRST = [
  'processor.name',
  'processor.cores',
  'processor.threads',
  'memory.size',
  'memory.speed',
  'graphics.renderer',
  'storage.model',
  'storage.size',
  'firmware.version',
  'os.name',
  'os.version',
  'os.kernel',
  'browser.name',
  'browser.version',
  'power.source',
  'power.mode',
  'display.resolution',
  'display.refresh',
  'room.temperature',
];

export function fromFacts(facts: readonly FactPart[], vocabulary: readonly Entry[]): FactRow[] {
  return facts.map((f) => ({
    key: f.key,
    label: f.label,
    group: f.group,
    example: vocabulary.find((v) => v.key === f.key)?.example ?? '',
    kept: f.shown,
    exact: f.exact,
    text: f.shown,
    read: f.source === 'READ',
    removed: false,
  }));
}

export function firstFacts(vocabulary: readonly Entry[]): FactRow[] {
  return FIRST.flatMap((key) => vocabulary.filter((v) => v.key === key)).map((v) => empty(v));
}

function empty(entry: Entry): FactRow {
  return {
    key: entry.key,
    label: entry.label,
    group: entry.group,
    example: entry.example,
    kept: null,
    text: '',
    read: false,
    removed: false,
  };
}

/** Adds a fact by its name; any name will do. One that is there already is brought back, not doubled. */
export function withFact(
  rows: readonly FactRow[],
  name: string,
  vocabulary: readonly Entry[],
  text = '',
  read = false,
): FactRow[] {
  const key = keyOf(name.trim(), vocabulary);
  if (rows.some((r) => r.key === key)) {
    return rows.map((r) => (r.key === key ? { ...r, removed: false, ...(text ? { text, read } : {}) } : r));
  }
  return [...rows, { ...made(key, vocabulary), text, read }];
}

/** A name as people say it: a key, a label, or the label of a second one of its kind; any other is its own key. */
function keyOf(name: string, vocabulary: readonly Entry[]): string {
  const labelled = (label: string) => vocabulary.find((v) => v.label.toLowerCase() === label.toLowerCase())?.key;
  const [, label, n] = /^(.+) ([2-9])$/.exec(name) ?? [];
  const first = label === undefined ? undefined : labelled(label);
  const another = first === undefined ? '' : numbered(first, Number(n));
  return labelled(name) ?? (NUMBERED.test(another) ? another : name);
}

/** A row that is not there yet; a second one of its kind has the label and the group of the first. */
function made(key: string, vocabulary: readonly Entry[]): FactRow {
  const entry = vocabulary.find((v) => v.key === key);
  if (entry) return empty(entry);
  const [, plain, n] = NUMBERED.exec(key) ?? [];
  const first = vocabulary.find((v) => v.key === plain);
  if (first) return { ...empty(first), key, label: `${first.label} ${n}` };
  return { key, label: key, group: 'Other', example: '', kept: null, text: '', read: false, removed: false };
}

const NUMBERED = /^((?:processor|graphics|storage|display)\.[a-z0-9_]+)\.([2-9])$/;

/** Kinds of which a device may have several and a test uses one, by their group, and what each is called by. */
export const ONE_USED: Readonly<Record<string, { kind: string; called: string; words: string }>> = {
  Graphics: { kind: 'graphics', called: 'graphics.renderer', words: 'graphics processor' },
  Storage: { kind: 'storage', called: 'storage.model', words: 'drive' },
  Display: { kind: 'display', called: 'display.resolution', words: 'display' },
};

/** The parts of a group as a choice: the first is the one that the tests used. Empty where there are not several. */
export function parts(facts: readonly { key: string; text: string }[], group: string): { n: number; name: string }[] {
  const several = ONE_USED[group];
  if (!several) return [];
  const numbers = new Set(
    facts.filter((f) => f.key.startsWith(`${several.kind}.`)).map((f) => Number(NUMBERED.exec(f.key)?.[2] ?? 1)),
  );
  if (numbers.size < 2) return [];
  return [...numbers]
    .sort((a, b) => a - b)
    .map((n) => ({
      n,
      name: facts.find((f) => f.key === numbered(several.called, n))?.text || `${group} ${n}`,
    }));
}

/** What was known of part n is now known of the one that the tests used, and the other way round. */
export function withUsed(rows: readonly FactRow[], kind: string, n: number, vocabulary: readonly Entry[]): FactRow[] {
  const of = (key: string) => {
    const [, plain, behind] = NUMBERED.exec(key) ?? [undefined, key, '1'];
    return plain.startsWith(`${kind}.`) && (behind === '1' || behind === String(n)) ? plain : null;
  };
  const plains = new Set(rows.flatMap((r) => of(r.key) ?? []));
  return [...plains].reduce<FactRow[]>(
    (all, plain) => {
      const other = numbered(plain, n);
      const [a, b] = [plain, other].map((key) => rows.find((r) => r.key === key && !r.removed));
      return put(put(all, plain, b, vocabulary), other, a, vocabulary);
    },
    [...rows],
  );
}

function put(rows: FactRow[], key: string, from: FactRow | undefined, vocabulary: readonly Entry[]): FactRow[] {
  // Untouched text is rounded for people, so what is exact moves instead; back in its own place it is untouched again.
  const text = !from ? '' : from.text === from.kept ? (from.exact ?? from.text) : from.text;
  const there = rows.find((r) => r.key === key);
  if (!there) return from ? [...rows, { ...made(key, vocabulary), text, read: from.read }] : rows;
  const own = text === there.exact ? there.kept! : text;
  return rows.map((r) => (r === there ? { ...r, text: own, read: from?.read ?? false, removed: false } : r));
}

function numbered(key: string, n: number): string {
  return n === 1 ? key : `${key}.${n}`;
}

export function isChanged(row: FactRow): boolean {
  return row.removed || row.text.trim() !== (row.kept ?? '');
}

/** What is sent: untouched facts without text, emptied and removed ones not at all. */
export function toBody(rows: readonly FactRow[]): { key: string; text?: string; read: boolean }[] {
  return rows
    .filter((r) => !r.removed && r.text.trim() !== '')
    .map((r) =>
      isChanged(r) || r.kept === null ? { key: r.key, text: r.text.trim(), read: r.read } : { key: r.key, read: false },
    );
}

/** Rows by group, in the order they are shown. */
export function byGroup(rows: readonly FactRow[]): { group: string; rows: FactRow[] }[] {
  return GROUPS.map((group) => ({ group, rows: rows.filter((r) => r.group === group) })).filter(
    (g) => g.rows.length > 0,
  );
}
