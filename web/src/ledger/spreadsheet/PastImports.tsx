import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { count, moment } from '../../format/format.ts';
import { Failed, Trouble } from '../../ui/states.tsx';

type Past = Schemas['PastImport'];

const KEY = ['ledger', 'imports'];
const FIRST = 8;

/** Undoes one import as a whole, or makes it count again. */
function useUndo() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, undo }: { id: number; undo: boolean }) =>
      value(
        undo
          ? api.POST('/api/ledger/imports/{id}/undo', { params: { path: { id } } })
          : api.DELETE('/api/ledger/imports/{id}/undo', { params: { path: { id } } }),
      ),
    onSuccess: () => void Promise.all([changed(queries, 'scores'), changed(queries, 'shelf')]),
  });
}

/** @param only this one, where it was stored just now; absent: all of the last week */
export function PastImports({ only }: { only?: number }) {
  const past = useQuery({ queryKey: KEY, queryFn: () => value(api.GET('/api/ledger/imports')) });
  const undo = useUndo();
  const [whole, setWhole] = useState(false);
  const all = (past.data ?? []).filter((p) => only === undefined || p.id === only);
  if (past.isError) return <Trouble error={past.error} again={() => void past.refetch()} />;
  if (all.length === 0) return null;
  const shown = whole ? all : all.slice(0, FIRST);
  return (
    <section className="max-w-3xl">
      {only === undefined && <h2>Imports of the last week</h2>}
      <ul>
        {shown.map((p) => (
          <li key={p.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-hair-2 py-1.5">
            <span className="min-w-0 flex-1">
              {count(p.readings)} {p.readings === 1 ? 'score' : 'scores'}, {madeWords(p)}
              <span className="small block">
                {p.person}, {moment(p.at)}
                {p.undoneAt !== undefined && `; undone by ${p.undoneBy}, ${moment(p.undoneAt)}`}
              </span>
              {undo.data?.of.id === p.id && undo.data.kept.length > 0 && (
                <span className="block" role="status">
                  Stays on the shelf, because something else was measured on it: {undo.data.kept.join('; ')}.
                </span>
              )}
            </span>
            <button
              data-changes
              className="button"
              disabled={undo.isPending}
              aria-label={`${p.undoneAt === undefined ? 'Undo' : 'Restore'} the import of ${moment(p.at)}`}
              onClick={() => undo.mutate({ id: p.id, undo: p.undoneAt === undefined })}
            >
              {p.undoneAt === undefined ? 'Undo' : 'Restore'}
            </button>
          </li>
        ))}
      </ul>
      {shown.length < all.length && (
        <button className="button mt-2" onClick={() => setWhole(true)}>
          Show all {all.length}
        </button>
      )}
      <p className="small mt-1">
        Undoing sets its scores aside and retires the models and configurations it made. Nothing is deleted.
      </p>
      <Failed of={undo} />
    </section>
  );
}

function madeWords(p: Past): string {
  const parts = [
    [p.madeSessions, 'session', 'sessions'],
    [p.madeConfigurations, 'new configuration', 'new configurations'],
    [p.madeModels, 'new model', 'new models'],
  ] as const;
  return parts
    .filter(([n]) => n > 0)
    .map(([n, one, several]) => `${count(n)} ${n === 1 ? one : several}`)
    .join(', ');
}
