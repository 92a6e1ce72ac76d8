import type { Schemas } from '../api/client.ts';

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
    text: f.shown,
    read: false,
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
  const entry = vocabulary.find((v) => v.key === name || v.label.toLowerCase() === name.trim().toLowerCase());
  const key = entry?.key ?? name.trim();
  if (rows.some((r) => r.key === key)) {
    return rows.map((r) => (r.key === key ? { ...r, removed: false, ...(text ? { text, read } : {}) } : r));
  }
  const made = entry
    ? empty(entry)
    : { key, label: key, group: 'Other', example: '', kept: null, text: '', read: false, removed: false };
  return [...rows, { ...made, text, read }];
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
