import { useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import { Marked } from './Marked.tsx';
import { NumberPicker, type Picked } from './NumberPicker.tsx';
import { nextNumber, plainNumbers } from '../question/number-words.ts';
import { pasted } from '../question/number-copy.ts';
import { usePointing } from './pointing.ts';
import type { Numbers } from '../question/questions.ts';
import type { NumberNow } from '../figure/use-answers.ts';

/** The plain number in which, or behind which, the caret stands. */
function numberAt(text: string, caret: number): { words: string; at: number } | undefined {
  return plainNumbers(text).find((n) => n.at <= caret && caret <= n.at + n.words.length);
}

/** A text where it will stand: read until it is pressed, then written. `@` adds a number, Ctrl+K makes one of the number at the caret. */
export function TextField({
  label,
  text,
  numbers,
  now,
  onChange,
  line = false,
  className = '',
  placeholder,
}: {
  label: string;
  text: string;
  numbers: Numbers | undefined;
  now: Record<string, NumberNow>;
  onChange: (text: string, numbers: Numbers) => void;
  line?: boolean;
  className?: string;
  placeholder: string;
}) {
  const [writing, setWriting] = useState(false);
  const [picking, setPicking] = useState(false);
  /** While a number is picked elsewhere on the page. */
  const [pointed, setPointed] = useState(false);
  /** A plain number of the text that is to stand for one. */
  const [linking, setLinking] = useState<string>();
  const pointing = usePointing();
  const area = useRef<HTMLTextAreaElement>(null);
  const caret = useRef<number | undefined>(undefined);
  useEffect(() => {
    const field = area.current;
    if (!field) return;
    field.style.height = 'auto';
    field.style.height = `${field.scrollHeight + 2}px`;
    if (caret.current !== undefined) {
      field.focus();
      field.setSelectionRange(caret.current, caret.current);
      caret.current = undefined;
    }
  }, [text, writing, picking]);

  function keys(event: KeyboardEvent<HTMLTextAreaElement>) {
    const plain = event.ctrlKey && event.key === 'k' ? numberAt(text, event.currentTarget.selectionStart) : undefined;
    if (plain) {
      event.preventDefault();
      caret.current = plain.at;
      setLinking(plain.words);
      setPicking(true);
    } else if (event.key === '@') {
      event.preventDefault();
      caret.current = event.currentTarget.selectionStart;
      setPicking(true);
    } else if (event.key === 'Escape' || (line && event.key === 'Enter')) {
      event.preventDefault();
      setWriting(false);
    }
  }
  function pick(picked: Picked) {
    const at = caret.current ?? text.length;
    const next = nextNumber(numbers);
    // A number that stands there already keeps its words, where they say the same.
    const put = `[${linking ?? picked.words}](number:${next})`;
    caret.current = at + put.length;
    onChange(text.slice(0, at) + put + text.slice(at + (linking?.length ?? 0)), {
      ...numbers,
      [next]: picked.question,
    });
    setPicking(false);
    setLinking(undefined);
  }
  // Between the first press and the number lies any time: what was kept meanwhile is what it is put into.
  const newest = useRef(pick);
  useLayoutEffect(() => {
    newest.current = pick;
  });

  return (
    <>
      {writing ? (
        <textarea
          ref={area}
          aria-label={label}
          className={`block w-full resize-none rounded border border-gold bg-sheet p-1.5 outline-none ${className}`}
          value={text}
          rows={1}
          autoFocus
          onKeyDown={keys}
          onChange={(e) => onChange(line ? e.target.value.replaceAll('\n', ' ') : e.target.value, numbers ?? {})}
          onPaste={(e) => {
            const at = e.currentTarget.selectionStart;
            const end = e.currentTarget.selectionEnd;
            const taken = pasted(e.clipboardData.getData('text/plain'), numbers, nextNumber);
            if (!taken) return;
            e.preventDefault();
            const put = line ? taken.text.replaceAll('\n', ' ') : taken.text;
            caret.current = at + put.length;
            onChange(text.slice(0, at) + put + text.slice(end), taken.numbers);
          }}
          onBlur={() => !picking && !pointed && setWriting(false)}
        />
      ) : (
        <div
          role="presentation"
          className={`marked relative min-h-6 cursor-text rounded has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-gold ${className}`}
          onClick={() => setWriting(true)}
        >
          {text.trim() === '' ? (
            <span className="text-ink-3">{placeholder}</span>
          ) : (
            <Marked text={text} numbers={now} line={line} />
          )}
          <button
            type="button"
            className="said absolute inset-0 cursor-text overflow-hidden text-transparent outline-none"
            aria-label={`${label}: write`}
            onClick={() => setWriting(true)}
          >
            write
          </button>
        </div>
      )}
      {picking && (
        <NumberPicker
          wanted={linking?.match(/[\d.,]+/)?.[0]}
          onPick={pick}
          onPoint={() => {
            setPicking(false);
            setPointed(true);
            pointing.begin(
              (picked) => {
                setPointed(false);
                setWriting(true);
                newest.current(picked);
              },
              () => {
                setPointed(false);
                setWriting(true);
                setLinking(undefined);
              },
            );
          }}
          onClose={() => {
            setPicking(false);
            if (linking !== undefined) {
              setLinking(undefined);
              return;
            }
            // An "at" that is meant as one.
            if (caret.current !== undefined) {
              const at = caret.current;
              caret.current = at + 1;
              onChange(`${text.slice(0, at)}@${text.slice(at)}`, numbers ?? {});
            }
          }}
        />
      )}
    </>
  );
}
