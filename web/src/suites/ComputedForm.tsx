import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useSettled } from '../ui/settled.ts';
import { api, value } from '../api/client.ts';
import { TEST_GROUPS, testGroup, unitName, type TestGroup } from '../format/format.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';
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
  const settled = useSettled(formula, 250);
  const [inputs, setInputs] = draft.field('inputs');
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
    <FormSheet
      draft={draft}
      make={make}
      save="Add"
      ready={told && settled === formula}
      onCancel={onCancel}
      hint="It is computed in every session that has its inputs, and anew when one changes. A formula is never changed later: retire it and add another."
    >
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <Labelled span={2} words="Computed value">
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            placeholder="System start"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </Labelled>
        <Labelled words="Unit; 1 for points">
          <input className="field" required maxLength={30} value={unit} onChange={(e) => setUnit(e.target.value)} />
        </Labelled>
        <Labelled words="Better is">
          <select
            className="field"
            value={direction}
            onChange={(e) => setDirection(e.target.value as typeof direction)}
          >
            <option value="LESS_IS_BETTER">less</option>
            <option value="MORE_IS_BETTER">more</option>
          </select>
        </Labelled>
        <Labelled
          span={2}
          words="Formula: + − * / ^, brackets, min, max, sum, mean, geomean, harmean, abs, sqrt, ln, log10, exp"
        >
          <input
            className="field font-mono"
            required
            maxLength={500}
            spellCheck={false}
            placeholder="started - firmware"
            value={formula}
            onChange={(e) => setFormula(e.target.value)}
          />
        </Labelled>
        <Labelled words="Group">
          <select className="field" value={group} onChange={(e) => setGroup(e.target.value as TestGroup)}>
            {TEST_GROUPS.map((g) => (
              <option key={g} value={g}>
                {testGroup(g)}
              </option>
            ))}
          </select>
        </Labelled>
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
    </FormSheet>
  );
}
