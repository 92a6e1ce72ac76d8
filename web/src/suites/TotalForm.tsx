import { useMutation } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';
import { direction, unitName } from '../format/format.ts';
import type { SuiteOfTests } from './suites.ts';

const KINDS = {
  SUM: 'weighted sum',
  ARITHMETIC: 'weighted arithmetic mean',
  GEOMETRIC: 'weighted geometric mean',
  HARMONIC: 'weighted harmonic mean',
} as const;

/** How a suite's own total is called, where a person typed it as a test like the others. */
const CALLED_TOTAL = /^(the )?(total|overall|sum|mean|average|score|overall score|total score|index)$/i;

/**
 * The total that a suite makes of its parts, each with its weight; no weight is no part. Either it is computed here, or it is
 * a number that is typed: then only its parts are said.
 */
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
  const named = parts.find((p) => CALLED_TOTAL.test(p.test));
  const draft = useDraft<{ kind: keyof typeof KINDS; unit: string; typed: string; weights: Record<number, string> }>(
    `total of ${suite.id}`,
    {
      kind: 'GEOMETRIC',
      unit: '1',
      typed: named ? String(named.id) : '',
      weights: Object.fromEntries(
        parts.filter((p) => p.id !== named?.id && p.direction === parts[0]?.direction).map((p) => [p.id, '1']),
      ),
    },
  );
  const [kind, setKind] = draft.field('kind');
  const [unit, setUnit] = draft.field('unit');
  const [typed, setTyped] = draft.field('typed');
  const [weights, setWeights] = draft.field('weights');
  const total = parts.find((p) => String(p.id) === typed);
  const given = Object.entries(weights)
    .filter(([id, w]) => w.trim() !== '' && id !== typed)
    .map(([id, w]) => [id, Number(w.replace(',', '.'))] as const);
  const wrong = given.some(([, w]) => !(w > 0));
  const make = useMutation({
    mutationFn: () =>
      total
        ? value(
            api.PUT('/api/metrics/{id}/total', {
              params: { path: { id: total.id } },
              body: { kind, weights: Object.fromEntries(given) },
            }),
          )
        : value(
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
    <FormSheet
      draft={draft}
      make={make}
      save={total ? 'Say that it is the total' : 'Add total'}
      ready={!wrong && given.length > 0}
      onCancel={onCancel}
      hint="Rankings use the parts, so the total does not count a second time."
    >
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <Labelled words="The suite’s own total">
          <select className="field" autoFocus value={typed} onChange={(e) => setTyped(e.target.value)}>
            <option value="">is computed here</option>
            {parts.map((p) => (
              <option key={p.id} value={p.id}>
                is typed: {p.test}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled span={2} words="It is the">
          <select className="field" value={kind} onChange={(e) => setKind(e.target.value as keyof typeof KINDS)}>
            {Object.entries(KINDS).map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
        </Labelled>
        {!total && (
          <Labelled words="Unit; 1 for points">
            <input className="field" required maxLength={30} value={unit} onChange={(e) => setUnit(e.target.value)} />
          </Labelled>
        )}
      </div>
      <div className="mt-2 grid gap-x-8 sm:grid-cols-2">
        {parts
          .filter((p) => p.id !== total?.id)
          .map((p) => (
            <label key={p.id} className="flex items-baseline gap-3 border-b border-hair-2 py-0.5">
              {p.test}{' '}
              <span className="small">
                {unitName(p.unit)}, {direction(p.direction)}
              </span>
              <input
                className="field ml-auto w-20"
                inputMode="decimal"
                aria-label={`Weight of ${p.test}`}
                placeholder="no part"
                value={weights[p.id] ?? ''}
                onChange={(e) => setWeights({ ...weights, [p.id]: e.target.value })}
              />
            </label>
          ))}
      </div>
      {wrong && (
        <p role="alert" className="mt-2 text-plum">
          A weight is a number above 0; leave it empty for a test that is no part.
        </p>
      )}
    </FormSheet>
  );
}
