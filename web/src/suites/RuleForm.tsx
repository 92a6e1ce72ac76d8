import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import { useSettled } from '../ui/settled.ts';
import { api, value, type Schemas } from '../api/client.ts';
import { quantity, unitName } from '../format/format.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';
import type { SuiteOfTests } from './suites.ts';

type Pattern = Schemas['PatternPart'];
const KINDS: Record<Pattern['kind'], string> = {
  LINE: 'expression on a line',
  KEY: 'what stands behind a name',
  COLUMN: 'column of a table',
  POINTER: 'JSON Pointer',
};

type Found = Schemas['TriedScore'];

/** What was read, and what that is in the unit of its test where the tool prints another. */
function readAs(f: Found): string {
  const printed = quantity(f.value, f.unit, f.resolution);
  return f.forTest === undefined || f.testUnit === undefined || f.testUnit === f.unit
    ? printed
    : `${printed} (${quantity(f.forTest, f.testUnit, f.value === 0 ? f.resolution : (f.resolution * f.forTest) / f.value)})`;
}

/** A reading rule, made by marking numbers in what a tool printed; what it finds is shown at once. */
export function RuleForm({
  suite,
  onDone,
  onCancel,
}: {
  suite: SuiteOfTests;
  onDone: () => void;
  onCancel: () => void;
}) {
  const box = useRef<HTMLTextAreaElement>(null);
  const draft = useDraft<{ sample: string; patterns: readonly Pattern[] }>(`reading rule of ${suite.id}`, {
    sample: '',
    patterns: [] as readonly Pattern[],
  });
  const [sample, setSample] = draft.field('sample');
  const [patterns, setPatterns] = draft.field('patterns');
  const metrics = suite.tests
    .filter((t) => !t.retired)
    .flatMap((t) => t.metrics)
    .filter((m) => m.formula === undefined && m.series === undefined && m.kind !== 'CHECK' && m.kind !== 'CHOICE');
  const free = metrics.filter((m) => patterns.every((p) => p.metricId !== m.id));
  const settled = useSettled(draft.value, 250);
  const tried = useQuery({
    queryKey: ['rule-try', settled],
    queryFn: ({ signal }) =>
      value(api.POST('/api/rules/try', { body: { patterns: [...settled.patterns], sample: settled.sample }, signal })),
    enabled: settled.patterns.length > 0 && settled.sample.trim() !== '',
    retry: false,
    placeholderData: keepPreviousData,
  });
  const mark = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/rules/mark', {
          body: { text: sample, start: box.current?.selectionStart ?? 0, end: box.current?.selectionEnd ?? 0 },
        }),
      ),
    onSuccess: (p) => {
      const metric =
        free.find(
          (m) =>
            p.name.toLowerCase().includes(m.test.toLowerCase()) || m.test.toLowerCase().includes(p.name.toLowerCase()),
        ) ?? free[0];
      const name = patterns.some((o) => o.name === p.name) ? `${p.name} ${patterns.length + 1}` : p.name;
      setPatterns([
        ...patterns,
        {
          ...p,
          name,
          unit: metric?.unit ?? p.unit,
          ...(metric ? { metricId: metric.id } : {}),
        },
      ]);
    },
  });
  const make = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/suite-versions/{id}/rules', {
          params: { path: { id: suite.id } },
          body: { patterns: [...patterns], sample },
        }),
      ),
    onSuccess: () => {
      draft.forget();
      onDone();
    },
  });
  const change = (index: number, part: Partial<Pattern>) =>
    setPatterns(patterns.map((p, i) => (i === index ? { ...p, ...part } : p)));
  const foundOf = (p: Pattern) => tried.data?.found.filter((f) => f.pattern === p.name.trim()) ?? [];
  return (
    <FormSheet
      draft={draft}
      make={make}
      save="Save rule"
      ready={patterns.length > 0 && tried.data !== undefined && tried.data.missed.length === 0}
      onCancel={onCancel}
    >
      <label className="block">
        <span className="small">
          Paste what the tool printed, mark a number in it, and say which test it belongs to
        </span>
        <textarea
          ref={box}
          className="field font-mono text-[12px]"
          rows={8}
          required
          autoFocus
          spellCheck={false}
          value={sample}
          onChange={(e) => setSample(e.target.value)}
        />
      </label>
      <p className="mt-1 flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="button"
          disabled={sample.trim() === '' || mark.isPending}
          onMouseDown={(e) => e.preventDefault()}
          onClick={() => mark.mutate()}
        >
          Read the marked number
        </button>
        <button
          type="button"
          className="small link"
          onClick={() =>
            setPatterns([
              ...patterns,
              {
                name: `Value ${patterns.length + 1}`,
                kind: 'KEY',
                expression: '',
                unit: free[0]?.unit ?? '1',
                occurrence: 0,
                ...(free[0] ? { metricId: free[0].id } : {}),
              },
            ])
          }
        >
          or write a pattern
        </button>
        {mark.isError && (
          <span role="alert" className="text-plum">
            {mark.error.message}
          </span>
        )}
      </p>
      {patterns.map((p, i) => (
        <div
          key={i}
          className="mt-2 grid items-start gap-x-3 gap-y-1 border-t border-hair-2 pt-2 sm:grid-cols-[1.2fr_1fr_2fr_110px_1fr_auto]"
        >
          <Labelled words="Test">
            <select
              className="field"
              value={p.metricId ?? ''}
              onChange={(e) => {
                const metric = metrics.find((m) => m.id === Number(e.target.value));
                // Where the tool prints a unit, that one is taken; what is written here is for where it prints none.
                if (metric) change(i, { metricId: metric.id, unit: metric.unit });
              }}
            >
              {metrics.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}, {unitName(m.unit)}
                </option>
              ))}
            </select>
          </Labelled>
          <Labelled words="Found by">
            <select
              className="field"
              value={p.kind}
              onChange={(e) => change(i, { kind: e.target.value as Pattern['kind'] })}
            >
              {Object.entries(KINDS).map(([k, words]) => (
                <option key={k} value={k}>
                  {words}
                </option>
              ))}
            </select>
          </Labelled>
          <Labelled words="which is">
            <input
              className="field font-mono text-[12px]"
              required
              maxLength={500}
              spellCheck={false}
              value={p.expression}
              onChange={(e) => change(i, { expression: e.target.value })}
            />
          </Labelled>
          <Labelled words="in, if it says none">
            <input
              className="field"
              required
              maxLength={30}
              value={p.unit}
              onChange={(e) => change(i, { unit: e.target.value })}
            />
          </Labelled>
          <Labelled words="Taken">
            <select
              className="field"
              value={p.occurrence}
              onChange={(e) => change(i, { occurrence: Number(e.target.value) })}
            >
              <option value={0}>each is a run</option>
              <option value={-1}>the last one</option>
              {[1, 2, 3, 4, 5].map((n) => (
                <option key={n} value={n}>
                  number {n}
                </option>
              ))}
            </select>
          </Labelled>
          <button
            type="button"
            className="small link self-center"
            aria-label={`Remove the pattern ${p.name}`}
            onClick={() => setPatterns(patterns.filter((_, j) => j !== i))}
          >
            remove
          </button>
          <p className="small sm:col-span-6" aria-live="polite">
            {foundOf(p).length > 0 && <>Reads {foundOf(p).map(readAs).join(', ')}. </>}
            <span className="text-plum">{tried.data?.missed.find((m) => m.pattern === p.name.trim())?.reason}</span>
          </p>
        </div>
      ))}
      {tried.isError && patterns.length > 0 && (
        <p role="alert" className="mt-2 text-plum">
          {tried.error.message}
        </p>
      )}
    </FormSheet>
  );
}
