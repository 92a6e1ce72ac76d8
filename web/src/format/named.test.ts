import { expect, test } from 'vitest';
import { named, toldApart } from './named.ts';

const made = (model: string, name: string) => ({ maker: 'Petrel', model, name });

test('a configuration is named only as far as it needs to be told apart', () => {
  const [old, fresh, other] = [made('S14', 'firmware 1.1'), made('S14', 'firmware 1.2'), made('S16', 'firmware 1.1')];
  expect(named(old)).toBe('Petrel S14, firmware 1.1');
  expect(toldApart(fresh, [old, fresh, other])).toBe('Petrel S14, firmware 1.2');
  expect(toldApart(other, [old, fresh, other])).toBe('Petrel S16');
  expect(toldApart(other, [other])).toBe('Petrel S16');
});
