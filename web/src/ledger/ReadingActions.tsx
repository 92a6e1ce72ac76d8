import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import { Failed } from '../ui/states.tsx';

type ReadingPage = Schemas['ReadingPage'];

export function Aside({ page, open }: { page: ReadingPage; open: boolean }) {
  const queries = useQueryClient();
  const [reason, setReason] = useState('');
  const path = { params: { path: { id: page.id } } };
  const change = useMutation({
    mutationFn: () =>
      open
        ? value(api.DELETE('/api/readings/{id}/set-aside', path))
        : value(api.POST('/api/readings/{id}/set-aside', { ...path, body: { reason } })),
    onSuccess: (next) => {
      setReason('');
      queries.setQueryData(['reading', page.id], next);
      void changed(queries, 'scores');
    },
  });
  return (
    <form
      data-changes
      className="mt-6"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate();
      }}
    >
      {open ? (
        <button className="button" disabled={change.isPending}>
          Count it again
        </button>
      ) : (
        <>
          <label className="small" htmlFor="aside-reason">
            Set aside, because
          </label>
          <div className="flex items-end gap-3">
            <input
              id="aside-reason"
              className="field"
              placeholder="the screen slept, an update ran"
              maxLength={500}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
            <button className="button whitespace-nowrap" disabled={reason.trim() === '' || change.isPending}>
              Set aside
            </button>
          </div>
          <p className="small mt-1">It stays in the ledger and no longer counts. You can take this back.</p>
        </>
      )}
      <p role="alert" className="mt-1 text-plum">
        {change.error?.message}
      </p>
    </form>
  );
}

/** Another value in the place of this one; this one stays, set aside. */
export function Correct({ page }: { page: ReadingPage }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [open, setOpen] = useState(false);
  const draft = useDraft(`correction of reading ${page.id}`, {
    text: '',
    reason: '',
  });
  const [text, setText] = draft.field('text');
  const [reason, setReason] = draft.field('reason');
  const correct = useMutation({
    mutationFn: () =>
      value(api.POST('/api/readings/{id}/correct', { params: { path: { id: page.id } }, body: { text, reason } })),
    onSuccess: (next) => {
      draft.forget();
      queries.setQueryData(['reading', next.id], next);
      void changed(queries, 'scores');
      void navigate({ to: '/ledger', search: (before: object) => ({ ...before, reading: next.id }) });
    },
  });
  if (!open)
    return (
      <p className="mt-2">
        <button data-changes className="small link" onClick={() => setOpen(true)}>
          Correct the value
        </button>
      </p>
    );
  return (
    <form
      className="mt-3 grid grid-cols-[110px_1fr] gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        correct.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <label>
        <span className="small">Right is</span>
        <input
          className="field"
          autoFocus
          required
          maxLength={200}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <label>
        <span className="small">because</span>
        <input
          className="field"
          required
          maxLength={400}
          placeholder="the decimal point slipped"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <p className="col-span-2 flex gap-3">
        <button className="button" disabled={text.trim() === '' || reason.trim() === '' || correct.isPending}>
          Correct it
        </button>
        <button type="button" className="button" onClick={() => setOpen(false)}>
          Cancel
        </button>
      </p>
      <Failed of={correct} className="col-span-2" />
    </form>
  );
}
