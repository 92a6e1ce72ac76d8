import { expect, test } from 'vitest';
import { foldText, makeSurvey, PIECES } from './pieces.ts';

test.each(Object.keys(PIECES))('%s gives its known answer, in every round', async (key) => {
  const once = PIECES[key]!.prepare();
  expect(await once()).toBe(PIECES[key]!.answer);
  expect(await once()).toBe(PIECES[key]!.answer);
});

test('the relay is a sum that can be done in the head', () => {
  expect(PIECES['desk-relay']!.answer).toBe((1_000 * 1_001) / 2 + (2_000 * 2_001) / 2 - 1_000);
});

test('a survey is the same for the same seed, and its digest sees one letter', () => {
  const survey = JSON.stringify(makeSurvey(3, 20));
  expect(JSON.stringify(makeSurvey(3, 20))).toBe(survey);
  expect(foldText(survey.replace('heron', 'heroh'))).not.toBe(foldText(survey));
  expect(makeSurvey(3, 20).some((s) => s.notes.some((note) => note.includes('"')))).toBe(true);
});
