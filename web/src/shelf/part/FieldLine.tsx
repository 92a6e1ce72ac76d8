import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useReader } from '../../access/access-context.ts';
import { Problem, type Schemas } from '../../api/client.ts';
import { Failed } from '../../ui/states.tsx';

export type Field = Schemas['FieldPart'];

/**
 * One value that is changed where it stands. What was typed is never lost: where somebody else was faster, both
 * versions are shown and either can be kept.
 */
export function FieldLine<P>({
  field,
  save,
  onSaved,
  long = false,
}: {
  field: Field;
  save: (seen: string | undefined, text: string) => Promise<P>;
  onSaved: (page: P) => void;
  long?: boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const change = useMutation({
    mutationFn: ({ seen, typed }: { seen: string | undefined; typed: string }) => save(seen, typed),
    onSuccess: (page) => {
      setText(null);
      onSaved(page);
    },
  });
  const reader = useReader();
  const clash = change.error instanceof Problem && change.error.code === 'changed-meanwhile' ? change.error : null;
  const stop = () => {
    setText(null);
    change.reset();
  };
  const keep = (seen: string | undefined) => {
    if (text === null) return;
    if (text.trim() === (field.shown ?? '') && seen === field.value) return stop();
    change.mutate({ seen, typed: text });
  };

  if (text === null) {
    return (
      <div className={`flex gap-3 border-b border-hair-2 py-1 ${field.shown ? '' : 'print:hidden'}`}>
        <span className="shrink-0 text-ink-2">{field.label}</span>
        {reader ? (
          <span className="said ml-auto">{field.shown ?? '–'}</span>
        ) : (
          <button
            className={`said ml-auto min-w-0 cursor-text rounded px-1 text-right break-words hover:bg-band ${long ? 'whitespace-pre-line' : ''} ${field.shown ? '' : 'text-ink-3'}`}
            aria-label={`${field.label}: ${field.shown ?? 'not noted'}. Change it`}
            onClick={() => setText(field.shown ?? '')}
          >
            {field.shown ?? '–'}
          </button>
        )}
      </div>
    );
  }
  const shared = {
    className: 'field',
    'aria-label': field.label,
    'aria-invalid': change.isError,
    autoFocus: true,
    placeholder: field.example,
    value: text,
    disabled: change.isPending,
  };
  return (
    <div
      role="group"
      className="border-b border-hair-2 py-1"
      onKeyDown={(event) => {
        if (event.key === 'Escape') stop();
      }}
    >
      <label className="small">{field.label}</label>
      {long ? (
        <textarea
          {...shared}
          rows={4}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) keep(field.value);
          }}
        />
      ) : (
        <input
          {...shared}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') keep(field.value);
          }}
        />
      )}
      <div className="mt-1 flex flex-wrap items-center gap-2">
        {clash ? (
          <>
            <p role="alert" className="w-full text-plum">
              {clash.message}
            </p>
            <button
              className="button"
              onClick={() => keep(typeof clash.body.now === 'string' ? clash.body.now : undefined)}
            >
              Keep mine
            </button>
            <button
              className="button"
              onClick={() => {
                stop();
                void save(
                  typeof clash.body.now === 'string' ? clash.body.now : undefined,
                  clash.body.nowShown ?? '',
                ).then(onSaved);
              }}
            >
              Keep theirs
            </button>
          </>
        ) : (
          <>
            <button className="button button-main" disabled={change.isPending} onClick={() => keep(field.value)}>
              Save
            </button>
            <button className="button" onClick={stop}>
              Cancel
            </button>
            <span className="small text-ink-3">
              {long ? (
                <>
                  <kbd>Ctrl</kbd> <kbd>Enter</kbd>
                </>
              ) : (
                <kbd>Enter</kbd>
              )}{' '}
              saves, <kbd>Esc</kbd> leaves it
            </span>
            <Failed of={change} className="w-full" />
          </>
        )}
      </div>
    </div>
  );
}
