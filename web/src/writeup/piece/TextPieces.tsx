import { NumbersMargin } from './Margin.tsx';
import { withoutNumber, withWords } from '../question/number-words.ts';
import type { Props } from './piece-parts.ts';
import { reportOf } from '../figure/shown.ts';
import { TextField } from './TextField.tsx';
import { useNumbers } from '../figure/use-answers.ts';

export function TextPart({ piece, onChange, children }: Props<'TEXT'>) {
  const { text, numbers } = piece.body;
  const now = useNumbers(numbers);
  return children({
    body: (
      <TextField
        label="Text"
        className="text-[16px] leading-normal"
        placeholder="Write here. @ adds a number."
        text={text}
        numbers={numbers}
        now={now}
        onChange={(next, of) => onChange({ text: next, numbers: of })}
      />
    ),
    margin: (
      <NumbersMargin
        text={text}
        numbers={now}
        onTake={(id, words) => onChange({ ...piece.body, text: withWords(text, id, words) })}
        onDrop={(id) => onChange({ ...piece.body, text: withoutNumber(text, id) })}
      />
    ),
    report: reportOf([text], now),
  });
}

export function VerdictPart({ piece, onChange, children }: Props<'VERDICT'>) {
  const { line, mark, numbers } = piece.body;
  const now = useNumbers(numbers);
  return children({
    body: (
      <div className="border-l-4 border-leaf pl-4">
        <TextField
          label="Verdict"
          className="font-title text-[20px] leading-snug"
          placeholder="The verdict, in a line"
          line
          text={line}
          numbers={numbers}
          now={now}
          onChange={(next, of) => onChange({ ...piece.body, line: next, numbers: of })}
        />
        <input
          aria-label="Mark"
          className="small mt-1 w-full bg-transparent"
          placeholder="A mark, if you give one: 8 out of 10, or in your words"
          maxLength={80}
          value={mark ?? ''}
          onChange={(e) => onChange({ ...piece.body, mark: e.target.value })}
        />
      </div>
    ),
    margin: (
      <NumbersMargin
        text={line}
        numbers={now}
        onTake={(id, words) => onChange({ ...piece.body, line: withWords(line, id, words) })}
        onDrop={(id) => onChange({ ...piece.body, line: withoutNumber(line, id) })}
      />
    ),
    report: reportOf([line], now),
  });
}
