import { useMutation } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import { direction, unitName } from '../format/format.ts';
import type { SuiteOfTests } from './suites.ts';

const KINDS = {
  SUM: 'weighted sum',
  ARITHMETIC: 'weighted arithmetic mean',
  GEOMETRIC: 'weighted geometric mean',
  HARMONIC: 'weighted harmonic mean',
} as const;

/** The total that a suite computes from its parts, each with its weight; no weight is no part. */
export function TotalForm({
  suite,
  onDone,
  onCancel,
}: {
  suite: SuiteOfTests;
  onDone: () => void;
  onCancel: () => void;
}) {
  const parts = suite.tests
    .filter((t) => !t.retired)
    .map((t) => t.metrics[0]!)
    .filter((m) => m.scale === 'RATIO' && m.formula === undefined);
  const draft = useDraft<{ kind: keyof typeof KINDS; unit: string; weights: Record<number, string> }>(
    `total of ${suite.id}`,
    {
      kind: 'GEOMETRIC',
      unit: '1',
      weights: Object.fromEntries(parts.filter((p) => p.direction === parts[0]?.direction).map((p) => [p.id, '1'])),
    },
  );
  const [kind, setKind] = draft.field('kind');
  const [unit, setUnit] = draft.field('unit');
  const [weights, setWeights] = draft.field('weights');
  const given = Object.entries(weights)
    .filter(([, w]) => w.trim() !== '')
    .map(([id, w]) => [id, Number(w.replace(',', '.'))] as const);
  const wrong = given.some(([, w]) => !(w > 0));
  const make = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/suite-versions/{id}/total', {
          params: { path: { id: suite.id } },
          body: { kind, unit, weights: Object.fromEntries(given) },
        }),
      ),
    onSuccess: () => {
      draft.forget();
      onDone();
    },
  });
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
          <span className="small">The suite’s own total is the</span>
          <select
            className="field"
            autoFocus
            value={kind}
            onChange={(e) => setKind(e.target.value as keyof typeof KINDS)}
          >
            {Object.entries(KINDS).map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="small">Unit; 1 for points</span>
          <input className="field" required maxLength={30} value={unit} onChange={(e) => setUnit(e.target.value)} />
        </label>
      </div>
      <div className="mt-2 grid gap-x-8 sm:grid-cols-2">
        {parts.map((p) => (
          <label key={p.id} className="flex items-baseline gap-3 border-b border-hair-2 py-0.5">
            {p.test}{' '}
            <span className="small">
              {unitName(p.unit)}, {direction(p.direction)}
            </span>
            <input
              className="field ml-auto !w-20"
              inputMode="decimal"
              aria-label={`Weight of ${p.test}`}
              placeholder="no part"
              value={weights[p.id] ?? ''}
              onChange={(e) => setWeights({ ...weights, [p.id]: e.target.value })}
            />
          </label>
        ))}
      </div>
      {make.isError && (
        <p role="alert" className="mt-2 text-plum">
          {make.error.message}
        </p>
      )}
      {wrong && (
        <p role="alert" className="mt-2 text-plum">
          A weight is a number above 0; leave it empty for a test that is no part.
        </p>
      )}
      <p className="mt-2 flex items-center gap-2">
        <button className="button button-main" disabled={make.isPending || wrong || given.length === 0}>
          Add total
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
        <span className="small text-ink-3">Rankings use the parts, so the total does not count a second time.</span>
      </p>
    </form>
  );
}
