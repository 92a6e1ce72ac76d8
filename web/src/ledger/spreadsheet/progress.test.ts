import { expect, test } from 'vitest';
import { progressInWords, refusedFile } from './progress.ts';

test('refused rows are a file in which nothing is a formula and every quote survives', () => {
  const text = decodeURIComponent(
    refusedFile([{ line: 5, column: 'value', value: '=1+1', reason: 'no "value"' }]).replace(/^data:[^,]*,/, ''),
  );
  expect(text).toBe('line,column,value,reason\r\n"5","value","\'=1+1","no ""value"""');
});

test('says what an import does and how far it is', () => {
  expect(progressInWords(undefined, 'a.csv', false)).toBe('Reading a.csv. Nothing is stored yet.');
  expect(progressInWords({ step: 'READING', done: 2000, of: 100000 }, 'a.csv', true)).toContain(
    '2\u202f000 of 100\u202f000. All of it',
  );
  expect(progressInWords({ step: 'STORING', done: 0, of: 7 }, 'a.csv', true)).toBe('Storing its runs, 0 of 7');
});
