import { expect, test } from 'vitest';
import { byGroup, firstFacts, fromFacts, isChanged, toBody, withFact, type Entry } from './fact-rows.ts';

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
