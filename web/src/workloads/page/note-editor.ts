import { seeded } from '../random.ts';
import { WrongAnswer } from '../types.ts';
import type { PageWork } from './frame.ts';

/** Typing into a text editor of our own: lines that are kept, coloured and drawn anew as keys come in. */
const KEYS = 240;
const WORDS = ['heron', 'weir', 'count', 'reed', 'tarn', 'note', 'mark', 'seen'];
const MARKED = /\b(heron|weir|tarn)\b|(\d+)/g;

export const STYLE = `
  * { box-sizing: border-box; margin: 0 }
  .editor { width: 640px; font: 13px monospace; outline: 0 }
  .line { height: 18px; white-space: pre; overflow: hidden; border-bottom: 1px solid #eee }
  .line.here { background: #f4f0e4 } .word { color: #24563f } .number { color: #8a3b1c }`;

/** The keys of one round, the same on every device: words, numbers, corrections, new lines and ways around the text. */
export function makeKeys(seed: number): string[] {
  const random = seeded(seed);
  const keys: string[] = [];
  while (keys.length < KEYS) {
    const pick = random();
    if (pick < 0.62) keys.push(...WORDS[Math.floor(random() * WORDS.length)]!, ' ');
    else if (pick < 0.74) keys.push(...String(Math.floor(random() * 900)), ' ');
    else if (pick < 0.84) keys.push('Backspace', 'Backspace', 'Backspace');
    else if (pick < 0.94) keys.push('Enter');
    else keys.push('ArrowUp', 'End');
  }
  return keys.slice(0, KEYS);
}

export interface Text {
  lines: string[];
  line: number;
  column: number;
}

/** What a key does to a text; answers the first line that changed, and whether lines came or went. */
export function press(text: Text, key: string): { from: number; added: number } {
  const { lines, line, column } = text;
  const now = lines[line]!;
  if (key === 'Enter') {
    lines.splice(line, 1, now.slice(0, column), now.slice(column));
    text.line++;
    text.column = 0;
    return { from: line, added: 1 };
  }
  if (key === 'Backspace') {
    if (column > 0) {
      lines[line] = now.slice(0, column - 1) + now.slice(column);
      text.column--;
    } else if (line > 0) {
      text.column = lines[line - 1]!.length;
      lines.splice(line - 1, 2, lines[line - 1]! + now);
      text.line--;
      return { from: line - 1, added: -1 };
    }
    return { from: line, added: 0 };
  }
  if (key === 'ArrowUp') {
    text.line = Math.max(0, line - 1);
    text.column = Math.min(column, lines[text.line]!.length);
  } else if (key === 'End') {
    text.column = now.length;
  } else {
    lines[line] = now.slice(0, column) + key + now.slice(column);
    text.column++;
  }
  return { from: Math.min(line, text.line), added: 0 };
}

export function prepare(body: HTMLElement): PageWork {
  const document = body.ownerDocument;
  const keys = makeKeys(1881);
  const wanted: Text = { lines: [''], line: 0, column: 0 };
  keys.forEach((key) => press(wanted, key));
  return {
    perRound: keys.length,
    work(rounds) {
      for (let i = 0; i < rounds; i++) {
        const shown = type(document, body, keys);
        if (shown !== wanted.lines.join('\n')) throw new WrongAnswer('The editor does not show what was typed.');
      }
    },
  };
}

function type(document: Document, body: HTMLElement, keys: readonly string[]): string {
  const editor = document.createElement('div');
  editor.className = 'editor';
  editor.tabIndex = 0;
  body.append(editor);
  const text: Text = { lines: [''], line: 0, column: 0 };
  const makeLine = () => {
    const line = document.createElement('div');
    line.className = 'line';
    return line;
  };
  editor.append(makeLine());
  const show = (index: number) => {
    const line = editor.children[index]!;
    line.textContent = '';
    let after = 0;
    const content = text.lines[index]!;
    for (const found of content.matchAll(MARKED)) {
      line.append(content.slice(after, found.index));
      const mark = document.createElement('span');
      mark.className = found[2] ? 'number' : 'word';
      mark.textContent = found[0];
      line.append(mark);
      after = found.index + found[0].length;
    }
    line.append(content.slice(after));
  };
  editor.addEventListener('keydown', (event) => {
    const before = text.line;
    const { from, added } = press(text, event.key);
    if (added > 0) editor.children[from]!.after(makeLine());
    if (added < 0) editor.children[from + 1]!.remove();
    show(from);
    if (added > 0) show(from + 1);
    editor.children[before]?.classList.remove('here');
    editor.children[text.line]!.classList.add('here');
    event.preventDefault();
  });
  for (const key of keys) {
    editor.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    // After each key the browser has to know where the line is, as it does to keep it in sight.
    if (editor.offsetHeight !== text.lines.length * 18) throw new WrongAnswer('The editor does not have the height of its lines.');
  }
  const shown = [...editor.children].map((line) => line.textContent).join('\n');
  editor.remove();
  return shown;
}
