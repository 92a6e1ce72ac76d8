import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { day } from '../format/format.ts';

/** What was written about a model; nothing where nothing was. */
export function WriteUpsOfModel({ id }: { id: number }) {
  const all = useQuery({
    queryKey: ['write-ups', 'model', id],
    queryFn: () => value(api.GET('/api/write-ups', { params: { query: { model: id, size: 20 } } })),
  });
  if (!all.data || all.data.total === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="border-b border-hair pb-0.5">Write-ups</h2>
      <ul>
        {all.data.rows.map((w) => (
          <li key={w.id} className="border-b border-hair-2 py-1.5">
            <Link to="/write-ups/$writeUpId" params={{ writeUpId: String(w.id) }} className="link">
              {w.title}
            </Link>{' '}
            <span className="small">
              {w.publishedAt ? (
                <>
                  <a href={`/w/${w.publicKey}`} className="link" target="_blank" rel="noreferrer">
                    edition {w.editions}
                  </a>
                  , {day(w.publishedAt)}
                </>
              ) : (
                `draft, changed ${day(w.changedAt)}`
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
