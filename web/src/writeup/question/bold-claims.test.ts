import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client.ts';
import { boldClaims, replaced, type Evidence } from './bold-claims.ts';

const configuration = (id: number, model: string) => ({ id, modelId: id, maker: 'Pellow', model, name: 'as found' });
const comparison = (overall: object, cell: object) =>
  ({
    base: configuration(1, 'Drift 11'),
    sides: [{ configuration: configuration(2, 'Drift 13'), overall }],
    rows: [{ metric: { id: 7, test: 'Report export' }, cells: [cell] }],
  }) as unknown as Schemas['Comparison'];
const CLEAR = { ratio: 1.152, low: 1.12, high: 1.18, verdict: 'CLEAR_GAIN', size: '15.2 % better' };
const OPEN = { ratio: 1.02, low: 0.95, high: 1.1, verdict: 'CANNOT_TELL', size: '2.0 % better' };
const LEVEL = { ratio: 1.001, low: 0.99, high: 1.01, verdict: 'LEVEL', size: '0.1 % higher' };
const standing = (best: number, worst: number) =>
  ({
    placed: 13,
    scope: 'the shared tests',
    rows: [{ configuration: configuration(2, 'Drift 13'), order: best, placeBest: best, placeWorst: worst }],
  }) as unknown as Schemas['Standings'];
const evidence = (overall: object, cell: object, ...standings: Schemas['Standings'][]): Evidence => ({
  comparisons: [{ comparison: comparison(overall, cell) }],
  standings,
});
const said = (text: string, of: Evidence) => boldClaims(text, of).map((c) => [c.said, c.why]);

test('a percentage beside a named device is held against what was measured', () => {
  expect(said('The Drift 13 is 21 % faster.', evidence(CLEAR, LEVEL))).toEqual([
    ['21 % faster', 'overall, measured 15.2 % better'],
  ]);
  expect(said('The Drift 13 is 15 % faster.', evidence(CLEAR, LEVEL))).toEqual([]);
  expect(said('Against the Drift 11 it is 13,2 percent less.', evidence(CLEAR, LEVEL))).toEqual([]);
  expect(said('The Drift 13 is 2 % faster.', evidence(OPEN, LEVEL))).toEqual([
    ['2 % faster', 'overall, too close to call: measured 2.0 % better'],
  ]);
});

test('where a sentence names a test, its own numbers count', () => {
  const of = evidence(CLEAR, { ...OPEN, size: '2.0 % less time' });
  expect(said('In report export the Drift 13 is 15 % faster.', of)).toEqual([
    ['15 % faster', 'Report export, too close to call: measured 2.0 % less time'],
  ]);
});

test('nobody named, or nothing asked, is nothing to hold against', () => {
  expect(said('It is 80 % faster.', evidence(OPEN, LEVEL))).toEqual([]);
  expect(said('The Drift 13 is the best.', evidence(OPEN, LEVEL))).toEqual([]);
  expect(said('The battery holds 40 % of its charge on the Drift 13.', evidence(OPEN, LEVEL))).toEqual([]);
});

test('the best is first and could be nothing else', () => {
  expect(said('Drift 13 is the best of them.', evidence(CLEAR, LEVEL, standing(1, 4)))).toEqual([
    ['the best', 'Drift 13 has place 1 of 13, and could have 1 to 4 (the shared tests)'],
  ]);
  expect(said('Drift 13 is the best of them.', evidence(CLEAR, LEVEL, standing(1, 1)))).toEqual([]);
});

test('what is too close to call is not as fast as another', () => {
  expect(said('The Drift 13 is as fast as the Drift 11.', evidence(OPEN, LEVEL))).toEqual([
    ['as fast as', 'overall, too close to call, which is not the same as equal'],
  ]);
  expect(said('The Drift 13 is as fast as the Drift 11.', evidence(LEVEL, LEVEL))).toEqual([]);
});

test('a number of the ledger is read by its words, and a claim is replaced by one', () => {
  const text = 'The Drift 13 is [21 % faster](number:a1). Quiet, too.';
  const [claim] = boldClaims(text, evidence(OPEN, LEVEL));
  expect(claim!.said).toBe('21 % faster');
  expect(replaced(text, claim!, 'b2')).toBe(
    'The Drift 13 is [2.0 % better, too close to call](number:b2). Quiet, too.',
  );
  expect(replaced('The Drift 13 is 21 % faster. Quiet, too.', claim!, 'b2')).toBe(
    'The Drift 13 is [2.0 % better, too close to call](number:b2). Quiet, too.',
  );
});
