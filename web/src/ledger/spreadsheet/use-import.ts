import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';

export type ImportState = Schemas['ImportState'];
export type ImportOutcome = Schemas['ImportOutcome'];
const ASK_EVERY_MS = 400;

export function isOver(state: ImportState | undefined): boolean {
  return state !== undefined && (state.outcome !== undefined || state.problem !== undefined);
}

/** An import that runs beside: how far it is, what came of it, and a way to stop it. */
export function useImport() {
  const queries = useQueryClient();
  const [job, setJob] = useState<{ id: string; store: boolean } | null>(null);
  const state = useQuery({
    queryKey: ['import', job?.id],
    queryFn: () => value(api.GET('/api/ledger/import/{id}', { params: { path: { id: job!.id } } })),
    enabled: job !== null,
    refetchInterval: (query) => (isOver(query.state.data) ? false : ASK_EVERY_MS),
  });
  const cancel = useMutation({
    mutationFn: (id: string) => value(api.DELETE('/api/ledger/import/{id}', { params: { path: { id } } })),
    onSuccess: () => void state.refetch(),
  });
  const outcome = state.data?.outcome;
  const stored = job?.store ? outcome : undefined;
  useEffect(() => {
    if (stored) for (const source of ['scores', 'catalogue', 'shelf'] as const) void changed(queries, source);
  }, [stored, queries]);
  return {
    follow: setJob,
    state: state.data,
    /** What only looking at the file said. */
    seen: job?.store ? undefined : outcome,
    stored,
    isStoring: job?.store ?? false,
    isUnderWay: job !== null && !isOver(state.data) && !state.isError,
    cancel: job ? () => cancel.mutate(job.id) : undefined,
    problem: state.data?.problem ?? state.error?.message ?? cancel.error?.message,
  };
}
