import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';
import { AddTests } from './AddTests.tsx';
import { moved, newItem, newSeed, withItem, type Draft } from './draft.ts';
import { PlanLine } from './PlanLine.tsx';

/** With more tests, each is one line until somebody opens it. */
const MANY = 12;

/** A plan as it is written: its tests in order, and what each of them wants otherwise than the plan. */
export function PlanForm({
  id,
  start,
  tests,
  onDone,
  onCancel,
}: {
  id: number | undefined;
  start: Draft;
  tests: readonly Schemas['TestRow'][];
  onDone: () => void;
  onCancel: () => void;
}) {
  const kept = useDraft(id === undefined ? `plan new ${start.name}` : `plan ${id}`, start);
  const draft = kept.value;
  const usable = tests.filter((t) => !t.retired && t.metrics.some((m) => m.formula === undefined));
  const names = new Map(tests.map((t) => [t.id, t]));
  const save = useMutation({
    mutationFn: () =>
      value(
        id === undefined
          ? api.POST('/api/plans', { body: draft })
          : api.PUT('/api/plans/{id}', { params: { path: { id } }, body: draft }),
      ),
    onSuccess: () => {
      kept.forget();
      onDone();
    },
  });
  const set = (change: Partial<Draft>) => kept.set({ ...draft, ...change });
  const item = (at: number, change: Parameters<typeof withItem>[2]) =>
    set({ items: withItem(draft.items, at, change) });
  const [words, setWords] = useState('');
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = draft.items.flatMap((it, i) => {
    const t = names.get(it.testId);
    const text = `${t?.suite ?? ''} ${t?.name ?? ''}`.toLowerCase();
    return wanted.every((w) => text.includes(w)) ? [i] : [];
  });
  return (
    <FormSheet
      draft={kept}
      make={save}
      save="Save plan"
      ready={draft.items.length > 0 && draft.name.trim() !== ''}
      onCancel={onCancel}
      hint="What stays empty is as the plan says."
    >
      <div
        key={kept.restored ? 'kept' : 'anew'}
        className="grid items-end gap-x-6 gap-y-2 sm:grid-cols-[2fr_90px_130px_110px_auto]"
      >
        <Labelled words="Plan">
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            value={draft.name}
            onChange={(e) => set({ name: e.target.value })}
          />
        </Labelled>
        <Labelled words="Runs each">
          <input
            className="field"
            type="number"
            min={1}
            max={30}
            required
            value={draft.runs}
            onChange={(e) => set({ runs: Number(e.target.value) })}
          />
        </Labelled>
        <Labelled words="Timed part in s">
          <input
            className="field"
            type="number"
            min={0}
            max={60}
            step="any"
            required
            value={draft.timedMs / 1000}
            onChange={(e) => set({ timedMs: Math.round(Number(e.target.value) * 1000) })}
          />
        </Labelled>
        <Labelled words="Pause in s">
          <input
            className="field"
            type="number"
            min={0}
            max={3600}
            step="any"
            required
            value={draft.pauseMs / 1000}
            onChange={(e) => set({ pauseMs: Math.round(Number(e.target.value) * 1000) })}
          />
        </Labelled>
        <label className="flex items-baseline gap-2 pb-1">
          <input
            type="checkbox"
            className="accent-leaf"
            checked={draft.stopOnFailure}
            onChange={(e) => set({ stopOnFailure: e.target.checked })}
          />
          stop at the first failure
        </label>
        <label className="flex items-baseline gap-2 pb-1">
          <input
            type="checkbox"
            className="accent-leaf"
            checked={draft.shuffleSeed !== undefined}
            onChange={(e) => set({ shuffleSeed: e.target.checked ? newSeed() : undefined })}
          />
          tests in random order
          {draft.shuffleSeed !== undefined && <span className="small">seed {draft.shuffleSeed}</span>}
        </label>
        <label className="flex items-baseline gap-2 pb-1 sm:col-span-3">
          <input
            type="checkbox"
            className="accent-leaf"
            checked={draft.coolByProbe}
            onChange={(e) => set({ coolByProbe: e.target.checked })}
          />
          pause until the device is as fast as it was cold
        </label>
        <div className="flex flex-wrap items-baseline gap-x-2 pb-1 sm:col-span-2">
          <label className="flex items-baseline gap-2">
            <input
              type="checkbox"
              className="accent-leaf"
              checked={draft.knownWithin !== undefined}
              onChange={(e) =>
                set(
                  e.target.checked
                    ? { runs: Math.max(3, draft.runs), mostRuns: Math.max(12, draft.runs), knownWithin: 1 }
                    : { mostRuns: undefined, knownWithin: undefined },
                )
              }
            />
            as many runs as it takes
          </label>
          {draft.knownWithin !== undefined && (
            <>
              <label className="flex items-baseline gap-1">
                until the mean is known within
                <input
                  className="field w-16"
                  type="number"
                  min={0.1}
                  max={20}
                  step="any"
                  required
                  value={draft.knownWithin}
                  onChange={(e) => set({ knownWithin: Number(e.target.value) })}
                />
                %
              </label>
              <label className="flex items-baseline gap-1">
                at most
                <input
                  className="field w-16"
                  type="number"
                  min={Math.max(3, draft.runs)}
                  max={30}
                  required
                  value={draft.mostRuns ?? 12}
                  onChange={(e) => set({ mostRuns: Number(e.target.value) })}
                />
                runs
              </label>
            </>
          )}
        </div>
        <label className="flex items-baseline gap-2 pb-1 sm:col-span-3">
          each device on
          <input
            className="field w-16"
            type="number"
            min={1}
            max={30}
            required
            aria-label="On how many days"
            value={draft.days ?? 1}
            onChange={(e) => set({ days: Number(e.target.value) > 1 ? Number(e.target.value) : undefined })}
          />
          {(draft.days ?? 1) === 1 ? 'day' : 'days: the bench says which devices are due'}
        </label>
      </div>
      {draft.items.length > MANY && (
        <p className="mt-3">
          <input
            className="field w-72 max-w-full"
            placeholder="any words of a test in the plan"
            aria-label="Words of a test in the plan"
            maxLength={120}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />{' '}
          <span className="small" role="status">
            {shown.length === draft.items.length
              ? `${draft.items.length} tests`
              : `${shown.length} of ${draft.items.length} tests`}
          </span>
        </p>
      )}
      <ol className="mt-3">
        {shown.map((i) => (
          <PlanLine
            key={`${draft.items[i]!.testId} ${kept.restored}`}
            item={draft.items[i]!}
            test={names.get(draft.items[i]!.testId)}
            folded={draft.items.length > MANY}
            first={i === 0}
            last={i === draft.items.length - 1}
            onChange={(change) => item(i, change)}
            onMove={(step) => set({ items: moved(draft.items, i, step) })}
            onRemove={() => set({ items: draft.items.filter((_, j) => j !== i) })}
          />
        ))}
      </ol>
      <AddTests
        tests={usable}
        taken={new Set(draft.items.map((it) => it.testId))}
        onAdd={(more) => set({ items: [...draft.items, ...more.map((t) => newItem(t.id, t.key))] })}
      />
    </FormSheet>
  );
}
