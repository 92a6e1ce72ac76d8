import { expect, test } from 'vitest';
import { refusedFile } from './ImportPart.tsx';

test('refused rows are a file in which nothing is a formula and every quote survives', () => {
  const text = decodeURIComponent(refusedFile([{ line: 5, column: 'value', value: '=1+1', reason: 'no "value"' }]).replace(/^data:[^,]*,/, ''));
  expect(text).toBe('line,column,value,reason\r\n"5","value","\'=1+1","no ""value"""');
});
