import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, value } from '../api/client.ts';
import { TEST_GROUPS, testGroup, unitName, type TestGroup } from '../format/format.ts';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import type { SuiteOfTests } from './suites.ts';

/** A value computed from others of the same session: a formula, and which test each of its names stands for. */
export function ComputedForm({
  suite,
  all,
  onDone,
  onCancel,
}: {
  suite: SuiteOfTests;
  all: readonly SuiteOfTests[];
  onDone: () => void;
  onCancel: () => void;
}) {
  const draft = useDraft<{
    name: string;
    unit: string;
    direction: 'MORE_IS_BETTER' | 'LESS_IS_BETTER';
    difference: boolean;
    main: boolean;
    group: TestGroup;
    formula: string;
    inputs: Record<string, number>;
  }>(`computed value of ${suite.id}`, {
    name: '',
    unit: 's',
    direction: 'LESS_IS_BETTER',
    difference: false,
    main: true,
    group: suite.tests[0]?.group ?? 'EVERYDAY',
    formula: '',
    inputs: {},
  });
  const [name, setName] = draft.field('name');
  const [unit, setUnit] = draft.field('unit');
  const [direction, setDirection] = draft.field('direction');
  const [difference, setDifference] = draft.field('difference');
  const [main, setMain] = draft.field('main');
  const [group, setGroup] = draft.field('group');
  const [formula, setFormula] = draft.field('formula');
  const [settled, setSettled] = useState('');
  const [inputs, setInputs] = draft.field('inputs');
  useEffect(() => {
    const wait = setTimeout(() => setSettled(formula), 250);
    return () => clearTimeout(wait);
  }, [formula]);
  const read = useQuery({
    queryKey: ['formula', settled],
    queryFn: ({ signal }) => value(api.POST('/api/formulas/read', { body: { formula: settled }, signal })),
    enabled: settled.trim() !== '',
    retry: false,
    placeholderData: keepPreviousData,
  });
  const make = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/suite-versions/{id}/computed', {
          params: { path: { id: suite.id } },
          body: { name, unit, direction, scale: difference ? 'DIFFERENCE' : 'RATIO', group, main, formula, inputs },
        }),
      ),
    onSuccess: () => {
      draft.forget();
      onDone();
    },
  });
  const metrics = [suite, ...all.filter((s) => s.id !== suite.id)].flatMap((s) =>
    s.tests
      .filter((t) => !t.retired)
      .flatMap((t) => t.metrics.map((m) => ({ id: m.id, label: `${m.name} (${s.name})`, unit: m.unit }))),
  );
  const needed = settled.trim() === '' || read.isError ? [] : (read.data?.inputs ?? []);
  const told = needed.length > 0 && needed.every((n) => inputs[n] !== undefined);
  return (
    <form
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      onKeyDown={(e) => {
        if (e.key === 'Escape') onCancel();
      }}
      onSubmit={(e) => {
        e.preventDefault();
        make.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <label className="sm:col-span-2">
          <span className="small">Computed value</span>
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            placeholder="System start"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <label>
          <span className="small">Unit; 1 for points</span>
          <input className="field" required maxLength={30} value={unit} onChange={(e) => setUnit(e.target.value)} />
        </label>
        <label>
          <span className="small">Better is</span>
          <select
            className="field"
            value={direction}
            onChange={(e) => setDirection(e.target.value as typeof direction)}
          >
            <option value="LESS_IS_BETTER">less</option>
            <option value="MORE_IS_BETTER">more</option>
          </select>
        </label>
        <label className="sm:col-span-2">
          <span className="small">
            Formula: + − * / ^, brackets, min, max, sum, mean, geomean, harmean, abs, sqrt, ln, log10, exp
          </span>
          <input
            className="field font-mono"
            required
            maxLength={500}
            spellCheck={false}
            placeholder="started - firmware"
            value={formula}
            onChange={(e) => setFormula(e.target.value)}
          />
        </label>
        <label>
          <span className="small">Group</span>
          <select className="field" value={group} onChange={(e) => setGroup(e.target.value as TestGroup)}>
            {TEST_GROUPS.map((g) => (
              <option key={g} value={g}>
                {testGroup(g)}
              </option>
            ))}
          </select>
        </label>
        <span className="self-end">
          <label className="flex items-baseline gap-2">
            <input type="checkbox" className="accent-leaf" checked={main} onChange={(e) => setMain(e.target.checked)} />
            counts in rankings
          </label>
          <label className="flex items-baseline gap-2">
            <input
              type="checkbox"
              className="accent-leaf"
              checked={difference}
              onChange={(e) => setDifference(e.target.checked)}
            />
            may be 0 or less
          </label>
        </span>
      </div>
      {needed.length > 0 && (
        <div className="mt-2 grid gap-x-6 gap-y-1 sm:grid-cols-2">
          {needed.map((n) => (
            <label key={n} className="flex items-baseline gap-2">
              <code>{n}</code> is
              <select
                className="field"
                aria-label={`What ${n} stands for`}
                value={inputs[n] ?? ''}
                onChange={(e) => setInputs({ ...inputs, [n]: Number(e.target.value) })}
              >
                <option value="">choose a test</option>
                {metrics.map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.label}, {unitName(m.unit)}
                  </option>
                ))}
              </select>
            </label>
          ))}
        </div>
      )}
      {settled.trim() !== '' && read.isError && (
        <p role="alert" className="mt-2 text-plum">
          {read.error.message}
        </p>
      )}
      {make.isError && (
        <p role="alert" className="mt-2 text-plum">
          {make.error.message}
        </p>
      )}
      <p className="mt-2 flex items-center gap-2">
        <button className="button button-main" disabled={make.isPending || !told || settled !== formula}>
          Add
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
        <span className="small text-ink-3">
          It is computed in every session that has its inputs, and anew when one changes. A formula is never changed
          later: retire it and add another.
        </span>
      </p>
    </form>
  );
}
