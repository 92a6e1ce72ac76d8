import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, Problem, value, type Schemas } from '../../api/client.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { Opening } from '../../shell/Opening.tsx';
import { fromFacts, type Entry, type FactRow, type toBody } from '../fact/fact-rows.ts';
import { FactEditor } from '../fact/FactEditor.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];

/** Facts changed in place, while nothing was measured. Where somebody else was faster, both states are shown. */
export function Editing({
  page,
  entries,
  onDone,
}: {
  page: ConfigurationPage;
  entries: readonly Entry[];
  onDone: (page: ConfigurationPage | null) => void;
}) {
  const id = page.configuration.id;
  const draft = useDraft<FactRow[]>(`facts of configuration ${id}`, fromFacts(page.facts, entries));
  const { value: rows, set: setRows } = draft;
  const [seen, setSeen] = useState(page.fingerprint);
  const save = useMutation({
    mutationFn: (facts: ReturnType<typeof toBody>) =>
      value(api.PUT('/api/configurations/{id}/facts', { params: { path: { id } }, body: { seen, facts } })),
    onSuccess: (saved) => {
      draft.forget();
      onDone(saved);
    },
  });
  const clash = save.error instanceof Problem && save.error.code === 'changed-meanwhile' ? save.error.body : null;
  const theirs = clash?.facts?.filter((f) => rows.find((r) => r.key === f.key)?.kept !== f.shown) ?? [];
  const gone = clash ? rows.filter((r) => r.kept !== null && !clash.facts?.some((f) => f.key === r.key)) : [];
  function goOn() {
    setRows(
      rows
        .map((r) => {
          const now = clash?.facts?.find((f) => f.key === r.key)?.shown ?? null;
          return { ...r, kept: now, text: r.text.trim() === (r.kept ?? '') ? (now ?? '') : r.text };
        })
        .concat(
          fromFacts(
            (clash?.facts ?? [])
              .filter((f) => !rows.some((r) => r.key === f.key))
              .map((f) => ({
                key: f.key,
                label: entries.find((e) => e.key === f.key)?.label ?? f.key,
                group: entries.find((e) => e.key === f.key)?.group ?? 'Other',
                value: '',
                shown: f.shown,
                source: 'TYPED' as const,
              })),
            entries,
          ),
        ),
    );
    setSeen(clash?.fingerprint ?? seen);
    save.reset();
  }
  return (
    <FactEditor
      rows={rows}
      onRows={setRows}
      vocabulary={entries}
      saveWords="Save the facts"
      error={save.error}
      busy={save.isPending}
      onSave={(facts) => save.mutate(facts)}
      onCancel={() => onDone(null)}
    >
      <Opening
        title={page.configuration.name}
        sentence="Nothing was measured with it yet, so its facts can still be changed."
      />
      <DraftNote draft={draft} />
      {clash && (
        <div className="border-l-2 border-gold pl-3">
          {theirs.map((f) => (
            <p key={f.key}>
              {entries.find((e) => e.key === f.key)?.label ?? f.key}: theirs <b>{f.shown}</b>, yours{' '}
              {rows.find((r) => r.key === f.key)?.text || 'not there'}
            </p>
          ))}
          {gone.map((r) => (
            <p key={r.key}>
              {r.label}: they took it out, yours {r.text}
            </p>
          ))}
          <button type="button" className="button mt-1" onClick={goOn}>
            Take their changes in, and keep what I typed
          </button>
        </div>
      )}
    </FactEditor>
  );
}
