import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { drawCard } from '../../writeup/figure/card-rows.ts';
import {
  againstWords,
  byGroup,
  cardCsv,
  ordinal,
  placeDetail,
  placeWords,
  valueWords,
  type ReportCard,
} from './card.ts';

const metric = (id: number, test: string, group: string, more: object = {}) =>
  ({
    id,
    test,
    name: test,
    main: true,
    group,
    unit: 's',
    direction: 'LESS_IS_BETTER',
    kind: 'DURATION',
    suite: 'Creel',
    version: '1',
    ...more,
  }) as Schemas['MetricRow'];
const CARD = {
  configuration: { id: 7, maker: 'Pellow', model: 'Drift <13>', name: '=firmware 3' },
  among: 13,
  purpose: 'all-round use',
  place: { order: 5, best: 4, worst: 7, of: 14, percentile: 9 / 13 },
  rows: [
    {
      metric: metric(1, 'Report export', 'EVERYDAY'),
      value: 55.7,
      atLeast: false,
      runs: 3,
      unmeasured: false,
      place: { order: 2, best: 2, worst: 3, of: 14, percentile: 12 / 13 },
      rating: 'GOOD',
      others: [-0.2, 0.1, -0.4],
    },
    {
      metric: metric(2, 'Heron flight', 'GRAPHICS', { unit: 'fps' }),
      atLeast: false,
      runs: 0,
      unmeasured: false,
      others: [],
      ended: { state: 'FAILED', reason: 'NOT_SUPPORTED' },
    },
    {
      metric: metric(3, 'Ten loops', 'EVERYDAY', { kind: 'CHECK', unit: '1' }),
      value: 1,
      atLeast: false,
      runs: 1,
      unmeasured: false,
      others: [],
    },
  ],
  best: [0],
  worst: [],
} as unknown as ReportCard;

test('places and values are said as people say them', () => {
  expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 101, 112].map(ordinal)).toEqual([
    '1st',
    '2nd',
    '3rd',
    '4th',
    '11th',
    '12th',
    '13th',
    '21st',
    '22nd',
    '101st',
    '112th',
  ]);
  expect(placeWords(CARD.place!)).toEqual(['5 of 14', '4 to 7']);
  expect(placeDetail(CARD.place!)).toBe('could be 4th to 7th, beats 69\u00a0% of the others');
  expect(placeDetail({ order: 1, best: 1, worst: 1, of: 2 })).toBe('');
  expect(CARD.rows.map(valueWords)).toEqual(['55.7 s', 'failed: not supported here', 'pass']);
  expect(byGroup(CARD.rows).map(([group, rows]) => [group, rows.length])).toEqual([
    ['Everyday', 2],
    ['Graphics', 1],
  ]);
});

test('against another it says what Compare says, and nothing where Compare says nothing', () => {
  const comparison = (cell: object) =>
    ({
      base: { maker: 'Pellow', model: 'Drift 11', name: 'as found' },
      rows: [{ metric: CARD.rows[0]!.metric, cells: [cell] }],
    }) as unknown as Schemas['Comparison'];
  const words = (cell: object) => againstWords(CARD.rows[0]!, comparison(cell));
  expect(words({ ratio: 1.2, verdict: 'CLEAR_GAIN', size: 'takes 17.0 % less time' })).toBe('takes 17.0 % less time');
  expect(words({ ratio: 1.2, verdict: 'PROBABLY_GAIN', size: '17.0 % less time' })).toBe('17.0 % less time, probably');
  expect(words({ ratio: 1.01, verdict: 'CANNOT_TELL', size: '1.0 % less time' })).toBe('too close to call');
  expect(words({ outReason: 'not run' })).toBe('');
  expect(againstWords(CARD.rows[1]!, comparison({}))).toBe('');
  expect(againstWords(CARD.rows[0]!, undefined)).toBe('');
});

test('the figure and the table of a card hold the same numbers, escaped, and a failed run is words and no mark', () => {
  const drawn = drawCard(CARD, undefined)!;
  for (const form of [drawn.svg, drawn.narrow!]) {
    expect(form).toContain('55.7 s');
    expect(form.match(/<circle/g)).toHaveLength(1);
    expect(form).toContain('failed');
  }
  expect(drawn.rows.map((r) => r.slice(0, 5))).toEqual([
    ['Report export', '55.7 s', '2 of 14', '2 to 3', 'good'],
    ['Heron flight', 'failed: not supported here', '', '', ''],
    ['Ten loops', 'pass', '', '', ''],
  ]);
  const csv = cardCsv(CARD, undefined);
  expect(csv).toContain('Report export,s,less is better,55.7,3,2,2,3,14,');
  expect(csv).toContain('failed: not supported here');
  expect(drawCard({ ...CARD, rows: [] }, undefined)).toBeUndefined();
});
