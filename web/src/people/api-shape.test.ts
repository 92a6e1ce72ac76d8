import { describe, expect, it } from 'vitest';
import document from '../../openapi.json' with { type: 'json' };
import { grouped, isAbout, jsonOf, partsOf, typeWords, type ApiDocument } from './api-shape.ts';

const real = document as unknown as ApiDocument;

describe('what the interface is said to be', () => {
  it('has every request once, in a group', () => {
    const all = grouped(real).flatMap((g) => g.requests);
    const there = Object.values(real.paths).reduce((n, path) => n + Object.keys(path).length, 0);
    expect(all).toHaveLength(there);
    expect(new Set(all.map((r) => `${r.method} ${r.path}`)).size).toBe(there);
    expect(grouped(real).map((g) => g.name)).toContain('suite versions');
  });

  it('is found by words in any order', () => {
    const all = grouped(real).flatMap((g) => g.requests);
    const found = (words: string) => all.filter((r) => isAbout(r, words)).map((r) => `${r.method} ${r.path}`);
    expect(found('ledger csv get')).toEqual(['GET /api/ledger/csv']);
    expect(found('nothing like it')).toEqual([]);
    expect(found('')).toHaveLength(all.length);
  });

  it('says types in words', () => {
    expect(typeWords({ type: 'string', maxLength: 80 })).toBe('string, to 80 characters');
    expect(typeWords({ type: 'integer', minimum: 1, maximum: 20 })).toBe('integer, 1 to 20');
    expect(typeWords({ type: 'number', minimum: 0 })).toBe('number, from 0');
    expect(typeWords({ type: 'array', items: { $ref: '#/components/schemas/Line' } })).toBe('list of Line');
    expect(typeWords({ type: 'object', additionalProperties: { type: 'number' } })).toBe('map to number');
    expect(typeWords({ enum: ['UP', 'DOWN'] })).toBe('UP | DOWN');
    expect(typeWords({ type: ['string', 'null'], format: 'date-time' })).toBe('moment');
    expect(typeWords(undefined)).toBe('anything');
  });

  it('names the parts of an answer once, also where they hold each other', () => {
    const ring: ApiDocument = {
      paths: {},
      components: {
        schemas: {
          A: { properties: { b: { $ref: '#/components/schemas/B' }, other: { $ref: '#/components/schemas/B' } } },
          B: { items: { $ref: '#/components/schemas/A' } },
        },
      },
    };
    expect(partsOf(ring, { $ref: '#/components/schemas/A' }).map((p) => p.name)).toEqual(['A', 'B']);
    expect(partsOf(ring, { $ref: '#/components/schemas/Gone' })).toEqual([]);
    const standings = real.paths['/api/standings']!['get']!.responses!['200'];
    expect(partsOf(real, jsonOf(standings)).length).toBeGreaterThan(3);
  });
});
