import { describe, expect, test } from 'vitest';
import { expectedHeight, makeReport } from './long-report.ts';
import { makeKeys, press, type Text } from './note-editor.ts';
import { makeShapes } from './shore-map.ts';

describe('the long report', () => {
  const words = (...widths: number[]) => [{ words: widths.map((width) => ({ text: 'x', width })), table: false }];

  test('a word goes to the next line where it does not fit with its gap', () => {
    // Three words of 94 and a gap of 6: just one line of 300 pixels, two of 299. A heading of 40 stands above.
    expect(expectedHeight(words(94, 94, 94), 300)).toBe(40 + 22);
    expect(expectedHeight(words(94, 94, 94), 299)).toBe(40 + 44);
    expect(expectedHeight([{ ...words(1, 2, 3, 4, 5, 6, 7, 8)[0]!, table: true }], 300)).toBe(40 + 48);
  });

  test('a narrower report is a longer one', () => {
    const report = makeReport(5);
    expect(expectedHeight(report, 360)).toBeGreaterThan(expectedHeight(report, 620));
    expect(expectedHeight(report, 620)).toBeGreaterThan(expectedHeight(report, 860));
  });
});

describe('the note editor', () => {
  const after = (keys: string[]): Text => {
    const text: Text = { lines: [''], line: 0, column: 0 };
    keys.forEach((key) => press(text, key));
    return text;
  };

  test('types, breaks, joins and goes up', () => {
    expect(after([...'reed', 'Enter', ...'tarn', 'Backspace', 'Backspace'])).toEqual({ lines: ['reed', 'ta'], line: 1, column: 2 });
    expect(after(['a', 'Enter', 'b', 'Backspace', 'Backspace', 'c']).lines).toEqual(['ac']);
    expect(after([...'long', 'Enter', 'x', 'ArrowUp', 'y', 'End', 'z']).lines).toEqual(['lyongz', 'x']);
    expect(after(['Backspace', 'ArrowUp', 'End'])).toEqual({ lines: [''], line: 0, column: 0 });
  });

  test('the keys of a round are the same each time and use everything an editor does', () => {
    const keys = makeKeys(1881);
    expect(keys).toEqual(makeKeys(1881));
    for (const key of ['Backspace', 'Enter', 'ArrowUp', 'End', ' ']) expect(keys).toContain(key);
    expect(after(keys).lines.length).toBeGreaterThan(3);
  });
});

test('shapes of the map lie inside their boxes, and all on the map', () => {
  for (const shape of makeShapes(77)) {
    expect(shape.points.every(([x, y]) => x >= shape.left && x <= shape.right && y >= shape.top && y <= shape.bottom)).toBe(true);
    expect(Math.min(shape.left, shape.top)).toBeGreaterThan(0);
    expect(Math.max(shape.right, shape.bottom)).toBeLessThan(600);
  }
});
