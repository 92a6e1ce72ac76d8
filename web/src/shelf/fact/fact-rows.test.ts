import { expect, test } from 'vitest';
import {
  byGroup,
  firstFacts,
  fromFacts,
  isChanged,
  parts,
  toBody,
  withFact,
  withUsed,
  type Entry,
} from './fact-rows.ts';

const entry = (key: string, label: string, group: string): Entry => ({
  key,
  label,
  brief: label,
  group,
  type: 'TEXT',
  example: '',
  choices: [],
});
const VOCABULARY = [
  entry('memory.size', 'Memory size', 'Memory'),
  entry('firmware.version', 'Firmware', 'Board and firmware'),
];
const FACTS = [
  {
    key: 'memory.size',
    label: 'Memory size',
    group: 'Memory',
    value: '17179869184',
    shown: '16 GiB',
    source: 'TYPED' as const,
  },
  { key: 'lamp', label: 'lamp', group: 'Other', value: 'on', shown: 'on', source: 'TYPED' as const },
];

test('what nobody touched is sent without text, so that it stays to the last digit', () => {
  const rows = fromFacts(FACTS, VOCABULARY);
  expect(toBody(rows)).toEqual([
    { key: 'memory.size', read: false },
    { key: 'lamp', read: false },
  ]);
  expect(rows.some(isChanged)).toBe(false);
});

test('changed, emptied and removed facts are told apart', () => {
  const [memory, lamp] = fromFacts(FACTS, VOCABULARY);
  expect(
    toBody([
      { ...memory!, text: ' 32 GB ' },
      { ...lamp!, removed: true },
    ]),
  ).toEqual([{ key: 'memory.size', text: '32 GB', read: false }]);
  expect(toBody([{ ...memory!, text: '' }])).toEqual([]);
  expect(isChanged({ ...memory!, text: '' })).toBe(true);
});

test('a fact is added by its label or any name, never twice', () => {
  let rows = fromFacts(FACTS, VOCABULARY);
  rows = withFact(rows, 'firmware', VOCABULARY, '1.11', true);
  expect(rows[2]).toMatchObject({ key: 'firmware.version', text: '1.11', read: true, kept: null });
  rows = withFact(
    rows.map((r) => (r.key === 'memory.size' ? { ...r, removed: true } : r)),
    'MEMORY SIZE',
    VOCABULARY,
  );
  expect(rows).toHaveLength(3);
  expect(rows[0]!.removed).toBe(false);
  expect(withFact(rows, ' Desk ', VOCABULARY)[3]).toMatchObject({ key: 'Desk', group: 'Other' });
});

test('groups keep their order, and an empty form begins with the facts that matter', () => {
  expect(byGroup(withFact(fromFacts(FACTS, VOCABULARY), 'Firmware', VOCABULARY)).map((g) => g.group)).toEqual([
    'Memory',
    'Board and firmware',
    'Other',
  ]);
  expect(firstFacts(VOCABULARY).map((r) => r.key)).toEqual(['memory.size', 'firmware.version']);
});

const PARTS = [
  entry('graphics.renderer', 'Graphics', 'Graphics'),
  entry('graphics.memory', 'Graphics memory', 'Graphics'),
];
const kept = (key: string, label: string, shown: string, exact?: string) => ({
  key,
  label,
  group: 'Graphics',
  value: shown,
  shown,
  exact,
  source: 'READ' as const,
});

test('a second one of its kind stands beside the first, by key or by label', () => {
  for (const name of ['graphics.memory.2', 'graphics memory 2'])
    expect(withFact([], name, PARTS)[0]).toMatchObject({
      key: 'graphics.memory.2',
      label: 'Graphics memory 2',
      group: 'Graphics',
    });
  expect(withFact([], 'Desk 2', PARTS)[0]).toMatchObject({ key: 'Desk 2', group: 'Other' });
  expect(withFact([], 'Memory size 2', VOCABULARY)[0], 'memory is not counted').toMatchObject({ group: 'Other' });
});

test('another part becomes the one that the tests used, with all that is known of it, to the last digit', () => {
  const rows = fromFacts(
    [
      kept('graphics.renderer', 'Graphics', 'Pond 40'),
      kept('graphics.renderer.2', 'Graphics 2', 'Weir 900'),
      kept('graphics.memory.2', 'Graphics memory 2', '8.0 GiB', '8589930000 B'),
    ],
    PARTS,
  );
  expect(parts(rows, 'Graphics')).toEqual([
    { n: 1, name: 'Pond 40' },
    { n: 2, name: 'Weir 900' },
  ]);
  const used = withUsed(rows, 'graphics', 2, PARTS);
  expect(toBody(used)).toEqual([
    { key: 'graphics.renderer', text: 'Weir 900', read: true },
    { key: 'graphics.renderer.2', text: 'Pond 40', read: true },
    { key: 'graphics.memory', text: '8589930000 B', read: true },
  ]);
  const back = withUsed(used, 'graphics', 2, PARTS);
  expect(toBody(back)).toEqual(rows.map((r) => ({ key: r.key, read: false })));
  expect(back.filter((r) => r.kept !== null).some(isChanged)).toBe(false);
});

test('one part alone leaves nothing to choose, and a group without parts neither', () => {
  expect(parts([{ key: 'graphics.renderer', text: 'Pond 40' }], 'Graphics')).toEqual([]);
  expect(
    parts(
      [
        { key: 'processor.name.2', text: 'x' },
        { key: 'processor.name', text: 'y' },
      ],
      'Processor',
    ),
  ).toEqual([]);
});
