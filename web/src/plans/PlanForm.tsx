import { useMutation } from '@tanstack/react-query';
import { useId } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { suites } from '../suites/suites.ts';
import { DraftNote, useDraft } from '../ui/draft.tsx';
import { moved, newItem, newSeed, numberOf, withItem, type Draft } from './draft.ts';

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
  const adding = useId();
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
  const add = (testId: number) => {
    if (testId > 0) set({ items: [...draft.items, newItem(testId, names.get(testId)?.key)] });
  };
  return (
    <form
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      onKeyDown={(e) => {
        if (e.key === 'Escape') onCancel();
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) save.mutate();
      }}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <DraftNote draft={kept} />
      <div
        key={kept.restored ? 'kept' : 'anew'}
        className="grid items-end gap-x-6 gap-y-2 sm:grid-cols-[2fr_90px_130px_110px_auto]"
      >
        <label>
          <span className="small">Plan</span>
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            value={draft.name}
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        <label>
          <span className="small">Runs each</span>
          <input
            className="field"
            type="number"
            min={1}
            max={30}
            required
            value={draft.runs}
            onChange={(e) => set({ runs: Number(e.target.value) })}
          />
        </label>
        <label>
          <span className="small">Timed part in s</span>
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
        </label>
        <label>
          <span className="small">Pause in s</span>
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
        </label>
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
      <ol className="mt-3">
        {draft.items.map((it, i) => {
          const t = names.get(it.testId);
          const small = (
            label: string,
            of: number | undefined,
            unit: number,
            onSet: (n: number | undefined) => void,
            width = 'w-16',
          ) => (
            <label className="flex items-baseline gap-1">
              <span className="small">{label}</span>
              <input
                className={`field ${width}`}
                inputMode="decimal"
                placeholder="–"
                defaultValue={of === undefined ? '' : of / unit}
                onChange={(e) => {
                  const n = numberOf(e.target.value);
                  onSet(n === undefined ? undefined : n * unit);
                }}
              />
            </label>
          );
          return (
            <li
              key={`${it.testId} ${kept.restored}`}
              className="flex flex-wrap items-baseline gap-x-4 border-b border-hair-2 py-1"
            >
              <span className="w-56 font-semibold">
                {t?.name} <span className="small font-normal">{t?.builtIn ? 'by itself' : 'by hand'}</span>
              </span>
              {small('runs', it.runs, 1, (runs) => item(i, { runs }), 'w-12')}
              {small('pause s', it.pauseMs, 1000, (pauseMs) => item(i, { pauseMs }))}
              {small('or until °C', it.pauseUntil, 1, (pauseUntil) => item(i, { pauseUntil }))}
              {t?.builtIn &&
                (t.key.startsWith('endurance-')
                  ? small('minutes', it.timedMs, 60_000, (timedMs) => item(i, { timedMs }), 'w-12')
                  : small('timed s', it.timedMs, 1000, (timedMs) => item(i, { timedMs })))}
              {small('at most s', it.allowedMs, 1000, (allowedMs) => item(i, { allowedMs }))}
              <label className="flex items-baseline gap-1">
                <input
                  type="checkbox"
                  className="accent-leaf"
                  checked={it.nice}
                  onChange={(e) => item(i, { nice: e.target.checked })}
                />
                <span className="small">nice to have</span>
              </label>
              {t && !t.builtIn && (
                <input
                  className="field min-w-52 flex-1"
                  maxLength={500}
                  aria-label={`What to do for ${t.name}`}
                  placeholder="what to do, under which conditions"
                  value={it.todo ?? ''}
                  onChange={(e) => item(i, { todo: e.target.value || undefined })}
                />
              )}
              <span className="ml-auto flex gap-3">
                <button
                  type="button"
                  className="small link"
                  aria-label={`Move ${t?.name ?? ''} up`}
                  disabled={i === 0}
                  onClick={() => set({ items: moved(draft.items, i, -1) })}
                >
                  up
                </button>
                <button
                  type="button"
                  className="small link"
                  aria-label={`Move ${t?.name ?? ''} down`}
                  disabled={i === draft.items.length - 1}
                  onClick={() => set({ items: moved(draft.items, i, 1) })}
                >
                  down
                </button>
                <button
                  type="button"
                  className="small link"
                  aria-label={`Take ${t?.name ?? ''} out`}
                  onClick={() => set({ items: draft.items.filter((_, j) => j !== i) })}
                >
                  out
                </button>
              </span>
            </li>
          );
        })}
      </ol>
      <p className="mt-2 max-w-[520px]">
        <label htmlFor={adding} className="small">
          Add a test
        </label>
        <select id={adding} className="field" value="" onChange={(e) => add(Number(e.target.value))}>
          <option value="">choose one</option>
          {suites(usable).map((s) => (
            <optgroup key={s.id} label={s.name}>
              {s.tests
                .filter((t) => draft.items.every((it) => it.testId !== t.id))
                .map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.name}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
      </p>
      {save.isError && (
        <p role="alert" className="mt-2 text-plum">
          {save.error.message}
        </p>
      )}
      <p className="mt-3 flex items-center gap-2">
        <button
          className="button button-main"
          disabled={save.isPending || draft.items.length === 0 || draft.name.trim() === ''}
        >
          Save plan
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
        <span className="small text-ink-3">
          <kbd>Ctrl</kbd> <kbd>Enter</kbd> saves. What stays empty is as the plan says.
        </span>
      </p>
    </form>
  );
}
