import { expect, test } from 'vitest';
import type { Standings } from '../question/ask.ts';
import { standingsCsv, standingsHtml } from './take-standings.ts';

const row = (id: number, model: string, merit: number) => ({
  configuration: {
    id,
    modelId: id,
    maker: 'Pellow',
    model,
    deviceClass: 'LAPTOP',
    unit: 'Unit 1',
    name: '=cmd|x',
    retired: false,
  },
  status: 'PLACED',
  placeBest: id,
  placeWorst: id,
  merit,
  index: 100 * Math.exp(merit),
  low: 98 * Math.exp(merit),
  high: 102 * Math.exp(merit),
  coverage: 1,
  tests: 2,
  percentile: 0.5,
  third: 'MIDDLE',
  parts: [{ part: 0, merit }],
});
const STANDINGS = {
  classes: [],
  purpose: 'all-round use',
  scope: 'every test',
  parts: [{ name: 'Storage', weight: 1 }],
  metrics: [{}, {}],
  leftOut: [{ test: 'Ping', suite: 'Creel', reason: 'nobody ran it' }],
  unknown: [],
  placed: 2,
  rows: [row(1, 'Drift <13>', 0.2), row(2, 'Spar', 0)],
  published: [],
} as unknown as Standings;

test('the table has a line for each, and what is left out', () => {
  const lines = standingsCsv(STANDINGS).trim().split('\r\n');
  expect(lines).toHaveLength(4);
  expect(lines[1]).toContain("'=cmd|x");
  expect(lines[3]).toContain('nobody ran it');
});

test('the table to embed escapes what people typed, and brings nothing along', () => {
  const html = standingsHtml(STANDINGS, 'Ranking <all>', '3 May');
  expect(html).toContain('Drift &#60;13&#62;');
  expect(html).toContain('<th scope="row">Pellow Spar');
  expect(html).not.toMatch(/<script|style=|<all>/);
});
