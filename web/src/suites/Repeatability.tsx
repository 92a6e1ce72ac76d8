import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { Failed } from '../ui/states.tsx';

/** How repeatable somebody says a test is: what its single runs lean on, where no readings tell. */
export function Repeatability({ test: t }: { test: Schemas['TestRow'] }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [percent, setPercent] = useState(t.repeatability === undefined ? '' : String(t.repeatability));
  const [source, setSource] = useState(t.repeatabilitySource ?? '');
  const state = useMutation({
    mutationFn: (body: Schemas['RepeatabilityBody']) =>
      value(api.PUT('/api/tests/{id}/repeatability', { params: { path: { id: t.id } }, body })),
    onSuccess: () => {
      setOpen(false);
      void changed(queries, 'catalogue');
    },
  });
  const words =
    t.repeatability === undefined ? '' : `Stated to repeat within ${t.repeatability} % (${t.repeatabilitySource}). `;
  if (!open) {
    return (
      <span className="small w-full">
        {words}
        <button
          data-changes
          className="link"
          onClick={() => setOpen(true)}
          aria-label={`${t.repeatability === undefined ? 'state how repeatable it is' : 'change'}: ${t.name}`}
        >
          {t.repeatability === undefined ? 'state how repeatable it is' : 'change'}
        </button>
      </span>
    );
  }
  return (
    <form
      className="flex w-full flex-wrap items-end gap-x-3"
      onSubmit={(event) => {
        event.preventDefault();
        state.mutate({ percent: Number(percent), source });
      }}
    >
      <label>
        <span className="small">Repeats within, in %</span>
        <input
          className="field w-24"
          type="number"
          min={0.01}
          max={1000}
          step="any"
          required
          autoFocus
          value={percent}
          onChange={(e) => setPercent(e.target.value)}
        />
      </label>
      <label className="min-w-48 flex-1">
        <span className="small">Who says so, or where</span>
        <input className="field" maxLength={300} required value={source} onChange={(e) => setSource(e.target.value)} />
      </label>
      <button className="button" disabled={state.isPending}>
        Save
      </button>
      {t.repeatability !== undefined && (
        <button type="button" className="button" disabled={state.isPending} onClick={() => state.mutate({})}>
          Remove
        </button>
      )}
      <button type="button" className="button" onClick={() => setOpen(false)}>
        Cancel
      </button>
      <span className="small w-full">
        It counts only where neither the test’s own readings nor those of its suite tell how noisy it is.
      </span>
      <Failed of={state} className="w-full" />
    </form>
  );
}
