import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../../api/client.ts';
import { moment } from '../../format/format.ts';
import { Ready, Failed } from '../../ui/states.tsx';

const FIELDS: Record<string, string> = {
  made: 'Put on the shelf',
  retired: 'Retired',
  name: 'Name',
  photo: 'Photo',
  claim: 'Claim',
  'merged into': 'Merged',
  'change under test': 'Change under test',
};
const PAGE = 20;

/** Who changed what and when. The last change can be taken back while nothing depends on it. */
export function HistoryPart({
  subject,
  id,
  onUndone,
}: {
  subject: 'model' | 'unit' | 'configuration';
  id: number;
  onUndone: () => void;
}) {
  const queries = useQueryClient();
  const [page, setPage] = useState(0);
  const key = ['history', subject, id, page];
  const history = useQuery({
    queryKey: key,
    queryFn: () =>
      value(api.GET('/api/history/{subject}/{id}', { params: { path: { subject, id }, query: { page, size: PAGE } } })),
  });
  const undo = useMutation({
    mutationFn: (change: string) =>
      value(api.POST('/api/history/{subject}/{id}/undo', { params: { path: { subject, id } }, body: { change } })),
    onSuccess: (now) => {
      queries.setQueryData(key, now);
      onUndone();
    },
  });
  return (
    <section className="mt-6">
      <h2 className="border-b border-hair pb-0.5">History</h2>
      <Ready query={history} what="its history">
        {(found) => (
          <ol>
            {found.rows.map((set) => (
              <li key={set.id} className={`border-b border-hair-2 py-1.5 ${set.undoneBy ? 'text-ink-3' : ''}`}>
                <span className="small">
                  {moment(set.at)}, {set.person}
                  {set.undo && ', taking a change back'}
                  {set.undoneBy && `, undone by ${set.undoneBy}`}
                </span>
                {set.changes.map((c, i) => (
                  <p key={i} className={`break-words ${set.undoneBy ? 'line-through' : ''}`}>
                    {FIELDS[c.field] ?? c.field}:{' '}
                    {c.from !== undefined && (
                      <>
                        {cut(c.from)} <span aria-label="became">→</span>{' '}
                      </>
                    )}
                    {c.to === undefined ? 'nothing' : cut(c.to)}
                    {c.reason && <span className="small block">because: {c.reason}</span>}
                  </p>
                ))}
                {set.last && (
                  <button
                    data-changes
                    className="link small"
                    disabled={undo.isPending}
                    onClick={() => undo.mutate(set.id)}
                  >
                    Undo
                  </button>
                )}
              </li>
            ))}
            {found.total === 0 && <li className="small py-1.5">Nothing was changed since it came with the shelf.</li>}
            {found.total > PAGE && (
              <li className="flex gap-3 py-2">
                <button className="link small" disabled={page === 0} onClick={() => setPage(page - 1)}>
                  newer
                </button>
                <button
                  className="link small"
                  disabled={(page + 1) * PAGE >= found.total}
                  onClick={() => setPage(page + 1)}
                >
                  older
                </button>
              </li>
            )}
          </ol>
        )}
      </Ready>
      <Failed of={undo} className="mt-1" />
    </section>
  );
}

function cut(text: string): string {
  return text.length <= 160 ? text : `${text.slice(0, 160)}…`;
}
