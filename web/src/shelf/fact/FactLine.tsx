import { useSettled } from '../../ui/settled.ts';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useId, useState } from 'react';
import { api, value } from '../../api/client.ts';
import { isChanged, type FactRow } from './fact-rows.ts';

/** One fact of the form: what is typed, how it is understood, and which values configurations have already. */
export function FactLine({
  row,
  refused,
  onText,
  onRemove,
  onUnderstood,
}: {
  row: FactRow;
  refused: string | undefined;
  onText: (text: string) => void;
  onRemove: () => void;
  onUnderstood: (shown: string | null) => void;
}) {
  const listId = useId();
  const [asked, setAsked] = useState(false);
  const text = useSettled(row.text.trim(), 180);
  const changed = isChanged(row) && !row.removed;
  const used = useQuery({
    queryKey: ['fact-values', row.key],
    queryFn: () => value(api.GET('/api/facts/values', { params: { query: { key: row.key, most: 30 } } })),
    enabled: asked,
    staleTime: 30_000,
  });
  const understood = useQuery({
    queryKey: ['understand', row.key, text],
    queryFn: ({ signal }) => value(api.POST('/api/facts/understand', { body: { key: row.key, text }, signal })),
    enabled: changed && text !== '',
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  const answer = changed && text !== '' ? understood.data : undefined;
  const shown = answer?.shown ?? null;
  useEffect(() => onUnderstood(shown), [shown]); // eslint-disable-line react-hooks/exhaustive-deps -- told once for each new answer
  if (row.removed) {
    return (
      <div className="flex items-baseline gap-3 border-b border-hair-2 py-1 text-ink-3">
        <span className="line-through">{row.label}</span> <span className="line-through">{row.kept}</span>
        <button type="button" className="small link ml-auto" onClick={() => onText(row.kept ?? '')}>
          undo
        </button>
      </div>
    );
  }
  const reason = answer?.reason ?? (changed && row.text.trim() !== '' ? undefined : refused) ?? refused;
  return (
    <div className="grid grid-cols-[150px_1fr] items-baseline gap-x-3 border-b border-hair-2 py-0.5">
      <label
        htmlFor={`${listId}-in`}
        className={`truncate ${changed ? 'font-semibold' : 'text-ink-2'}`}
        title={row.label}
      >
        {row.label}
      </label>
      <span className="flex gap-2">
        <input
          id={`${listId}-in`}
          className={`field py-0.5 hover:border-hair focus:border-gold ${changed ? 'border-gold' : 'border-transparent'}`}
          list={listId}
          placeholder={row.example}
          maxLength={500}
          value={row.text}
          aria-invalid={reason !== undefined}
          aria-describedby={`${listId}-how`}
          autoComplete="off"
          onFocus={() => setAsked(true)}
          onChange={(e) => onText(e.target.value)}
        />
        <datalist id={listId}>
          {used.data?.map((v) => (
            <option
              key={v.exact}
              value={v.exact}
            >{`${v.exact === v.shown ? '' : `${v.shown}, `}used ${v.used} times`}</option>
          ))}
        </datalist>
        {row.kept !== null && (
          <button
            type="button"
            className="small text-ink-3 hover:text-plum"
            aria-label={`Leave ${row.label} out`}
            tabIndex={-1}
            onClick={onRemove}
          >
            ✕
          </button>
        )}
      </span>
      <span id={`${listId}-how`} className="small col-start-2 empty:hidden" aria-live="polite">
        {reason !== undefined ? (
          <span className="text-plum">{reason}</span>
        ) : (
          answer && (
            <span className="text-leaf">
              {answer.shown !== row.text.trim() || answer.note ? <>understood as {answer.shown}</> : null}
              {answer.note && <>; {answer.note}</>}
              {Object.entries(answer.also).map(([label, also]) => (
                <span key={label}>
                  ; also {label.toLowerCase()} {also}
                </span>
              ))}
            </span>
          )
        )}
        {changed && row.kept !== null && <span className="text-ink-3"> was {row.kept}</span>}
      </span>
    </div>
  );
}
