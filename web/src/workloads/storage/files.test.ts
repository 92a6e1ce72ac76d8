import { expect, test } from 'vitest';
import { withoutFiles } from './index.ts';

test('what is missing is said, and a private window is not taken for a browser without files', () => {
  expect(withoutFiles('able')).toBeNull();
  expect(withoutFiles('none')).toContain('neither pages nor their workers');
  expect(withoutFiles('no-direct')).toContain('in place');
  expect(withoutFiles({ refused: 'SecurityError' })).toMatch(/private.*ordinary window/);
});
