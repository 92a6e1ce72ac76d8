import { expect, test } from 'vitest';
import { merged } from './merge.ts';

const BASE = { text: 'The fan is quiet. The screen is dim. The keys are soft.', numbers: { a: 1 } as object };

test('different sentences of one text come together', () => {
  const mine = { ...BASE, text: 'The fan is quiet at last. The screen is dim. The keys are soft.' };
  const theirs = { ...BASE, text: 'The fan is quiet. The screen is dim. The keys are soft. It costs too much.' };
  const both = 'The fan is quiet at last. The screen is dim. The keys are soft. It costs too much.';
  expect(merged(BASE, mine, theirs)?.text).toBe(both);
  expect(merged(BASE, mine, BASE)).toEqual(mine);
  expect(merged(BASE, BASE, theirs)).toEqual(theirs);
});

test('the same sentence is nobody’s but theirs who choose', () => {
  const mine = { ...BASE, text: BASE.text.replace('dim', 'bright') };
  const theirs = { ...BASE, text: BASE.text.replace('dim', 'dull') };
  expect(merged(BASE, mine, theirs)).toBeNull();
  expect(merged(BASE, mine, mine), 'unless both wrote the same').toEqual(mine);
});

test('of a figure one changes the view and the other the caption', () => {
  const base = { question: { ids: [1, 2] }, caption: 'Both' };
  expect(merged(base, { ...base, question: { ids: [1, 2, 3] } }, { ...base, caption: 'All three' })).toEqual({
    question: { ids: [1, 2, 3] },
    caption: 'All three',
  });
  expect(merged(base, { ...base, question: { ids: [3] } }, { ...base, question: { ids: [4] } })).toBeNull();
});

test('a field that one took out stays out, and numbers of both are there', () => {
  const mine = { ...BASE, numbers: { a: 1, b: 2 } };
  const theirs = { ...BASE, numbers: { a: 1, c: 3 } };
  expect(merged(BASE, mine, theirs)!.numbers).toEqual({ a: 1, b: 2, c: 3 });
  const { numbers: _gone, ...without } = BASE;
  expect(merged<Partial<typeof BASE>>(BASE, without, { ...BASE, text: 'Other.' })).toEqual({ text: 'Other.' });
});

test('merging is the same whoever is first', () => {
  const words = ['One.', 'Two.', 'Three.', 'Four.', 'Five.', 'Six.'];
  for (let i = 0; i < words.length; i++)
    for (let j = 0; j < words.length; j++) {
      const change = (at: number, to: string) => ({ text: words.map((w, n) => (n === at ? to : w)).join(' ') });
      const base = { text: words.join(' ') };
      const [a, b] = [change(i, 'Mine.'), change(j, 'Theirs.')];
      expect(merged(base, a, b)).toEqual(merged(base, b, a));
      if (i !== j) expect(merged(base, a, b)!.text).toContain('Mine.');
    }
});
