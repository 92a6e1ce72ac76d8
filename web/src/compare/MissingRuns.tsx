import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { missingRuns } from './order.ts';

const TIMED_MS = 3000;
const PAUSE_MS = 5000;

/** Where lines cannot be told: a plan with exactly those tests, each with as many runs as are missing. */
export function MissingRuns({ comparison }: { comparison: Schemas['Comparison'] }) {
  const queries = useQueryClient();
  const missing = missingRuns(comparison.rows);
  const named = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const make = useMutation({
    mutationFn: () => {
      // A plan's name is its own, so the time of day tells two apart.
      const at = new Date();
      const name = `More runs, ${comparison.base.model} ${at.toISOString().slice(0, 10)} ${at.toTimeString().slice(0, 8)}`.slice(0, 120);
      return value(api.POST('/api/plans', { body: { name, runs: 3, timedMs: TIMED_MS, pauseMs: PAUSE_MS, stopOnFailure: false, items: missing.map((m) => ({ testId: m.testId, runs: m.runs, nice: false })) } }));
    },
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['plans'] }),
  });
  if (missing.length === 0) return null;
  if (make.data) {
    return (
      <p role="status" className="small mt-2">Planned as “{make.data.name}”. Carry it out with {named.map((c) => `${c.model} (${c.name})`).join(' and ')}: <Link to="/bench" search={{ plan: make.data.id }} className="link">bring them to the bench</Link>, or <Link to="/plans" search={{ edit: make.data.id }} className="link">change the plan</Link>.</p>
    );
  }
  return (
    <div className="mt-2">
      <button className="button" disabled={make.isPending} onClick={() => make.mutate()}>Plan the missing runs</button>
      <p className="small mt-1">{missing.length === 1 ? `${missing[0]!.test} cannot be told yet; ${missing[0]!.runs} more ${missing[0]!.runs === 1 ? 'run' : 'runs'} may settle it.` : `${missing.length} tests cannot be told yet; ${missing.reduce((n, m) => n + m.runs, 0)} more runs may settle them.`}</p>
      {make.isError && <p role="alert" className="text-plum">{make.error.message}</p>}
    </div>
  );
}
