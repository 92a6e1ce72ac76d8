import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';

/** The same wherever a session is looked at; nothing where nothing came late. */
export function LateRunsOf({ session }: { session: number }) {
  const queries = useQueryClient();
  const waiting = useQuery({
    queryKey: ['late-runs', session],
    queryFn: () => value(api.GET('/api/bench/late', { params: { query: { session } } })),
  });
  return waiting.data?.map((w) => (
    <LateRuns key={w.seatId} seatId={w.seatId} late={w.late} onDone={() => void changed(queries, 'scores')} />
  ));
}

/** Finished runs that came after the session was ended on the bench. */
export function LateRuns({ seatId, late, onDone }: { seatId: number; late: number; onDone?: () => void }) {
  const path = { params: { path: { id: seatId } } };
  const take = useMutation({
    mutationFn: () => value(api.POST('/api/bench/seats/{id}/late', path)),
    onSuccess: () => onDone?.(),
  });
  const leave = useMutation({
    mutationFn: () => value(api.DELETE('/api/bench/seats/{id}/late', path)),
    onSuccess: () => onDone?.(),
  });
  const [sure, setSure] = useState(false);
  const problem = take.error ?? leave.error;
  return (
    <div role="status" className="mt-2 border-l-2 border-gold pl-3 text-[13.5px]">
      <p>
        {late} finished {late === 1 ? 'run' : 'runs'} of this device came after its session was ended on the bench.{' '}
        {sure ? (
          <>
            Remove {late === 1 ? 'it' : 'them'} for good?{' '}
            <button className="link text-plum" autoFocus onClick={() => leave.mutate()}>
              Remove
            </button>{' '}
            <button className="link ml-2" onClick={() => setSure(false)}>
              Cancel
            </button>
          </>
        ) : (
          <>
            <button data-changes className="link font-semibold" disabled={take.isPending} onClick={() => take.mutate()}>
              Add to the session
            </button>{' '}
            <button data-changes className="link ml-2" onClick={() => setSure(true)}>
              Remove
            </button>
          </>
        )}
      </p>
      {problem && (
        <p role="alert" className="text-plum">
          {problem.message}
        </p>
      )}
    </div>
  );
}
