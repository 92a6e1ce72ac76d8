import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sendFile, value, type Schemas } from '../api/client.ts';
import { bytes, moment } from '../format/format.ts';
import { Panel } from '../ui/Panel.tsx';

type Row = Schemas['EvidenceRow'];

/** A run that evidence may belong to. */
export interface RunName {
  id: number;
  name: string;
}

/** Photos, logs and files of a session: dropped here, or taken with a phone's camera. */
export function EvidencePart({
  sessionId,
  readOnly = false,
  runs = [],
}: {
  sessionId: number;
  readOnly?: boolean;
  runs?: readonly RunName[];
}) {
  const queries = useQueryClient();
  const key = ['evidence', sessionId];
  const [open, setOpen] = useState<Row | null>(null);
  const [gone, setGone] = useState<Row | null>(null);
  const [of, setOf] = useState<number | undefined>(undefined);
  const all = useQuery({
    queryKey: key,
    queryFn: () => value(api.GET('/api/sessions/{id}/evidence', { params: { path: { id: sessionId } } })),
  });
  const refresh = () => void queries.invalidateQueries({ queryKey: key });
  const send = useMutation({
    scope: { id: `evidence-${sessionId}` },
    mutationFn: (file: File) =>
      sendFile<Row[]>(
        `/api/sessions/${sessionId}/evidence?name=${encodeURIComponent(file.name || 'pasted')}${of === undefined ? '' : `&run=${of}`}`,
        file,
      ),
    onSuccess: (rows) => queries.setQueryData(key, rows),
  });
  const remove = useMutation({
    mutationFn: (row: Row) => value(api.DELETE('/api/evidence/{id}', { params: { path: { id: row.id } } })),
    onSuccess: (_none, row) => {
      setGone(row);
      setOpen(null);
      refresh();
    },
  });
  const restore = useMutation({
    mutationFn: (row: Row) => value(api.POST('/api/evidence/{id}/restore', { params: { path: { id: row.id } } })),
    onSuccess: () => {
      setGone(null);
      refresh();
    },
  });
  const take = (files: FileList | null) => Array.from(files ?? []).forEach((f) => send.mutate(f));
  const error = send.error ?? remove.error ?? restore.error ?? all.error;
  if (readOnly && !error && (all.data ?? []).length === 0) return null;
  return (
    <section
      className="mt-6 border-l border-hair pl-4"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        if (!readOnly) take(e.dataTransfer.files);
      }}
    >
      <h2>Evidence</h2>
      <ul>
        {(all.data ?? []).map((row) => (
          <li key={row.id} className="flex items-baseline gap-2 border-b border-hair-2 py-0.5">
            <button type="button" className="said link min-w-0 truncate text-left" onClick={() => setOpen(row)}>
              {row.name}
            </button>
            {row.runId !== undefined && (
              <span className="small truncate text-ink-3">
                {runs.find((r) => r.id === row.runId)?.name ?? 'another run'}
              </span>
            )}
            <span className="small ml-auto whitespace-nowrap">{bytes(row.sizeBytes)}</span>
          </li>
        ))}
      </ul>
      {!readOnly && !error && all.data?.length === 0 && (
        <p className="small">
          Nothing yet. A photo of the meter or the log of a run says later what a score came from.
        </p>
      )}
      {!readOnly && runs.length > 0 && (
        <label className="mt-1 flex items-baseline gap-2">
          <span className="small whitespace-nowrap">belongs to</span>
          <select
            className="field"
            value={of ?? ''}
            onChange={(e) => setOf(e.target.value === '' ? undefined : Number(e.target.value))}
          >
            <option value="">the whole session</option>
            {runs.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {!readOnly && (
        <p data-changes className="mt-1 flex flex-wrap gap-x-4">
          <label className="small link cursor-pointer focus-within:outline-2 focus-within:outline-gold">
            {send.isPending ? 'Sending' : 'add a file, or drop it here'}
            <input
              type="file"
              multiple
              className="sr-only"
              onChange={(e) => {
                take(e.target.files);
                e.target.value = '';
              }}
            />
          </label>
          <label className="small link cursor-pointer focus-within:outline-2 focus-within:outline-gold">
            take a photo
            <input
              type="file"
              accept="image/*"
              capture="environment"
              className="sr-only"
              onChange={(e) => {
                take(e.target.files);
                e.target.value = '';
              }}
            />
          </label>
        </p>
      )}
      {gone && (
        <p role="status" className="small">
          {gone.name} was removed.{' '}
          <button data-changes type="button" className="link" onClick={() => restore.mutate(gone)}>
            Undo
          </button>
        </p>
      )}
      {error && (
        <p role="alert" className="text-plum">
          {error.message}
        </p>
      )}
      <Panel open={open !== null} onClose={() => setOpen(null)} title={open?.name ?? ''}>
        {open && <Viewer row={open} />}
        {open && !readOnly && (
          <p className="mt-4">
            <button data-changes type="button" className="small link" onClick={() => remove.mutate(open)}>
              Remove from the session
            </button>
          </p>
        )}
      </Panel>
    </section>
  );
}

/** Pictures and text are shown; anything else is only saved. */
function Viewer({ row }: { row: Row }) {
  const address = `/api/evidence/${row.id}`;
  const isText = row.contentType.startsWith('text/plain');
  const text = useQuery({
    queryKey: ['evidence', 'text', row.id],
    queryFn: async () => (await fetch(address)).text(),
    enabled: isText,
    staleTime: Infinity,
  });
  return (
    <>
      <p className="small mb-2">
        {bytes(row.sizeBytes)}, kept by {row.person}, {moment(row.at)}.{' '}
        <a className="link" href={address} download={row.name}>
          Save it
        </a>
      </p>
      {row.contentType.startsWith('image/') ? (
        <img src={address} alt={row.name} className="max-h-[56vh] w-full object-contain" />
      ) : isText ? (
        <pre className="max-h-[56vh] overflow-auto text-[12px]">{text.data ?? 'Fetching it.'}</pre>
      ) : (
        <p>This kind of file is not shown here.</p>
      )}
    </>
  );
}
