import { expect, test } from 'vitest';
import { sampleCentre } from './ReadingPanel.tsx';

test('a sample of checks says how many were passed, one of words has no mean', () => {
  expect(sampleCentre({ centre: 2 / 3 }, { kind: 'CHECK', unit: '1' })).toBe('67\u00a0% passed');
  expect(sampleCentre({ centre: 1.5 }, { kind: 'CHOICE', unit: '1' })).toBe('');
  expect(sampleCentre({ centre: 41.2 }, { kind: 'DURATION', unit: 's' })).toBe('41.2 s');
});
