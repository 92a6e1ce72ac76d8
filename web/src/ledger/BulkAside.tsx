import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { count } from '../format/format.ts';
import type { LedgerSearch } from '../shell/search-params.ts';

/** Sets everything aside that counts in what the ledger shows, and takes that back. */
export function BulkAside({ filter, onDone }: { filter: LedgerSearch & { readings?: number[] }; onDone: () => void }) {
  const queries = useQueryClient();
  const [reason, setReason] = useState('');
  const narrowed = { ...filter, state: 'COUNTED' as const };
  const counting = useQuery({
    queryKey: ['ledger', narrowed, 'count'],
    queryFn: () => value(api.GET('/api/ledger', { params: { query: { ...narrowed, page: 0, size: 1 } } })),
    enabled: filter.state === undefined || filter.state === 'COUNTED',
  });
  const done = () => {
    void changed(queries, 'scores');
  };
  const aside = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/ledger/set-aside', {
          params: { query: filter },
          body: { reason, expected: counting.data?.total ?? 0 },
        }),
      ),
    onSuccess: done,
  });
  const back = useMutation({
    mutationFn: (batch: number) => value(api.DELETE('/api/ledger/set-aside/{batch}', { params: { path: { batch } } })),
    onSuccess: () => {
      aside.reset();
      done();
    },
  });
  const total = counting.data?.total ?? 0;
  return (
    <form
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      onSubmit={(e) => {
        e.preventDefault();
        aside.mutate();
      }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') onDone();
      }}
    >
      {aside.data ? (
        <p role="status" className="flex items-baseline gap-4">
          {count(aside.data.readings)} readings were set aside. They stay in the ledger.{' '}
          <button type="button" className="button" onClick={() => back.mutate(aside.data.batch)}>
            Undo
          </button>
          <button type="button" className="small link ml-auto" onClick={onDone}>
            Close
          </button>
        </p>
      ) : total === 0 ? (
        <p role="status">
          {counting.isPending && counting.fetchStatus !== 'idle'
            ? 'Counting'
            : 'Nothing that is shown counts, so there is nothing to set aside.'}{' '}
          <button type="button" className="small link" onClick={onDone}>
            Close
          </button>
        </p>
      ) : (
        <div className="flex flex-wrap items-end gap-3">
          <label className="min-w-72 flex-1">
            <span className="small">Set aside all {count(total)} readings that count here, because</span>
            <input
              className="field"
              autoFocus
              required
              maxLength={500}
              placeholder="wrong cable, an old firmware"
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
          </label>
          <button className="button button-main" disabled={reason.trim() === '' || aside.isPending}>
            Set {count(total)} aside
          </button>
          <button type="button" className="button" onClick={onDone}>
            Cancel
          </button>
        </div>
      )}
      {(aside.error ?? back.error ?? counting.error) && (
        <p role="alert" className="text-plum">
          {(aside.error ?? back.error ?? counting.error)!.message}
        </p>
      )}
    </form>
  );
}
