import { useState } from 'react';
import type { Asked } from './run-session.ts';

/** What a running test asks of whoever holds the device. */
export function Asking({ asked }: { asked: Asked }) {
  const { title, words, fields = [], buttons } = asked.question;
  const [typed, setTyped] = useState<Record<string, string>>({});
  return (
    <form
      className="mt-4 border-l-2 border-gold pl-3"
      aria-label={title || 'While this run goes on'}
      onSubmit={(event) => event.preventDefault()}
    >
      {title && <h2>{title}</h2>}
      {words.map((text) => (
        <p key={text} className={title ? 'mt-1 text-[16px]' : 'small'}>
          {text}
        </p>
      ))}
      {fields.map((field) => (
        <label key={field.key} className="small mt-3 block max-w-60">
          {field.label}
          <input
            className="field text-[16px] text-ink"
            inputMode="decimal"
            autoComplete="off"
            maxLength={12}
            placeholder={field.hint}
            value={typed[field.key] ?? ''}
            onChange={(e) => setTyped({ ...typed, [field.key]: e.target.value })}
          />
        </label>
      ))}
      <div className="mt-3 flex flex-wrap gap-3">
        {buttons.map(({ key, label }, i) => (
          <button
            key={key}
            type={i === 0 ? 'submit' : 'button'}
            className={`button py-2 text-[16px] ${i === 0 && title ? 'button-main' : ''}`}
            onClick={() => asked.answer({ button: key, fields: typed })}
          >
            {label}
          </button>
        ))}
      </div>
    </form>
  );
}
