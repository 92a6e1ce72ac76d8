import { useQuery } from '@tanstack/react-query';
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { api, Problem, value } from '../../api/client.ts';
import {
  byGroup,
  isChanged,
  ONE_USED,
  parts,
  toBody,
  withFact,
  withUsed,
  type Entry,
  type FactRow,
} from './fact-rows.ts';
import { Choice } from '../../ui/Choice.tsx';
import { FactLine } from './FactLine.tsx';
import { ReadText } from './ReadText.tsx';

export function useVocabulary() {
  return useQuery({
    queryKey: ['vocabulary'],
    queryFn: () => value(api.GET('/api/facts/vocabulary')),
    staleTime: Infinity,
  });
}

/**
 * The facts of a configuration as a form. Enter goes to the next field, Ctrl and Enter save. Nothing typed is lost when
 * the server refuses: each reason stands beside its fact.
 */
export function FactEditor({
  rows,
  onRows,
  vocabulary,
  saveWords,
  name,
  onName,
  error,
  busy,
  onSave,
  onCancel,
  children,
}: {
  rows: readonly FactRow[];
  onRows: (rows: FactRow[]) => void;
  vocabulary: readonly Entry[];
  saveWords: string;
  /** What it is to be called; absent where it has a name. */
  name?: string;
  onName?: (name: string) => void;
  error: Error | null;
  busy: boolean;
  onSave: (facts: ReturnType<typeof toBody>, name: string) => void;
  onCancel: () => void;
  children?: React.ReactNode;
}) {
  const addId = useId();
  const form = useRef<HTMLFormElement>(null);
  const [adding, setAdding] = useState('');
  const [reading, setReading] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [understood, setUnderstood] = useState<Record<string, string | null>>({});
  useEffect(() => form.current?.querySelector<HTMLInputElement>('fieldset input')?.focus(), []);
  const refused = error instanceof Problem ? (error.body.refused ?? []) : [];
  const changed = rows.filter(isChanged);
  const change = (key: string, to: Partial<FactRow>) => onRows(rows.map((r) => (r.key === key ? { ...r, ...to } : r)));
  const leave = () => (changed.length > 0 && !leaving ? setLeaving(true) : onCancel());
  const suggested = changed
    .filter((r) => r.kept !== null && !r.removed && understood[r.key])
    .map((r) => `${vocabulary.find((v) => v.key === r.key)?.brief ?? r.label} ${understood[r.key]}`)
    .slice(0, 3)
    .join(', ');

  function keys(event: KeyboardEvent) {
    // A list that is open over the form has keys of its own.
    if (!form.current?.contains(event.target as Node)) return;
    if (event.key === 'Escape') {
      event.stopPropagation();
      leave();
    } else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      save();
    } else if (event.key === 'Enter' && event.target instanceof HTMLInputElement && event.target.name !== 'another') {
      event.preventDefault();
      const fields = [...(form.current?.querySelectorAll<HTMLInputElement>('input') ?? [])];
      fields[fields.indexOf(event.target) + 1]?.focus();
    }
  }
  function save() {
    if (!busy) onSave(toBody(rows), (name ?? '').trim());
  }
  function add() {
    if (adding.trim() === '') return;
    onRows(withFact(rows, adding, vocabulary));
    const label = vocabulary.find((v) => v.label.toLowerCase() === adding.trim().toLowerCase())?.label ?? adding.trim();
    setAdding('');
    requestAnimationFrame(() =>
      [...(form.current?.querySelectorAll('label') ?? [])].find((l) => l.textContent === label)?.control?.focus(),
    );
  }

  return (
    <form
      ref={form}
      onKeyDown={keys}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {children}
      <div className="sticky top-0 z-10 flex flex-wrap items-end gap-3 border-b border-hair bg-paper py-2">
        {onName && (
          <label className="min-w-60 flex-1">
            <span className="small">Name</span>
            <input
              className="field"
              maxLength={200}
              value={name}
              placeholder={suggested || 'made from its facts'}
              onChange={(e) => onName(e.target.value)}
            />
          </label>
        )}
        <button data-changes className="button button-main" disabled={busy}>
          {saveWords}
        </button>
        <button type="button" className="button" onClick={leave}>
          Cancel
        </button>
        <button type="button" className="button" aria-expanded={reading} onClick={() => setReading(!reading)}>
          Read facts from text
        </button>
        <span className="small pb-2 text-ink-3">
          {changed.length === 0 ? 'nothing changed yet' : `${changed.length} changed`}, <kbd>Ctrl</kbd> <kbd>Enter</kbd>{' '}
          saves
        </span>
      </div>
      {leaving && (
        <p role="alert" className="flex items-center gap-3 bg-gold-soft px-3 py-2">
          {changed.length} changed facts are not saved.{' '}
          <button type="button" className="button" onClick={onCancel}>
            Leave without them
          </button>{' '}
          <button type="button" className="button" autoFocus onClick={() => setLeaving(false)}>
            Go on
          </button>
        </p>
      )}
      {error && (
        <p role="alert" className="mt-2 border-l-2 border-plum pl-3 text-plum">
          {error.message}
        </p>
      )}
      {reading && (
        <ReadText
          rows={rows}
          onAccept={(facts) =>
            onRows(facts.reduce<FactRow[]>((all, f) => withFact(all, f.key, vocabulary, f.exact, true), [...rows]))
          }
        />
      )}
      <div className="mt-3 gap-x-10 lg:columns-2">
        {byGroup(rows).map((g) => (
          <fieldset key={g.group} className="mb-4 break-inside-avoid">
            <legend className="w-full border-b border-hair pb-0.5 font-title text-[17px] font-medium">{g.group}</legend>
            {g.rows.map((row) => (
              <FactLine
                key={row.key}
                row={row}
                refused={refused.find((r) => r.field === row.key)?.reason}
                onText={(text) => change(row.key, { text, removed: false, read: false })}
                onRemove={() => change(row.key, { removed: true })}
                onUnderstood={(shown) =>
                  setUnderstood((all) => (all[row.key] === shown ? all : { ...all, [row.key]: shown }))
                }
              />
            ))}
            <UsedPart group={g.group} rows={rows} onUsed={(kind, n) => onRows(withUsed(rows, kind, n, vocabulary))} />
          </fieldset>
        ))}
      </div>
      <p className="flex max-w-[460px] items-end gap-3">
        <label className="flex-1">
          <span className="small">Another fact: one of the list, or any name</span>
          <input
            className="field"
            name="another"
            list={addId}
            maxLength={80}
            value={adding}
            onChange={(e) => setAdding(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter' && !e.ctrlKey) {
                e.preventDefault();
                add();
              }
            }}
          />
          <datalist id={addId}>
            {vocabulary
              .filter((v) => !rows.some((r) => r.key === v.key && !r.removed))
              .map((v) => (
                <option key={v.key} value={v.label}>
                  {v.group}
                </option>
              ))}
          </datalist>
        </label>
        <button type="button" className="button" disabled={adding.trim() === ''} onClick={add}>
          Add
        </button>
      </p>
    </form>
  );
}

/** Which one of several graphics processors, drives or displays the tests used. */
function UsedPart({
  group,
  rows,
  onUsed,
}: {
  group: string;
  rows: readonly FactRow[];
  onUsed: (kind: string, n: number) => void;
}) {
  const several = ONE_USED[group];
  const all = parts(
    rows.filter((r) => !r.removed && r.text.trim() !== ''),
    group,
  );
  if (!several || all.length < 2) return null;
  return (
    <p className="py-1.5 text-ink-2">
      Tests use the {several.words}{' '}
      <Choice
        name={`The ${several.words} that tests use`}
        value={all[0]!.n}
        options={all.map((p) => ({ value: p.n, label: p.name }))}
        onChoose={(n) => n !== all[0]!.n && onUsed(several.kind, n)}
      >
        {all[0]!.name}
      </Choice>
      .
    </p>
  );
}
