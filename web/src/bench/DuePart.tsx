import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { day } from '../format/format.ts';

/** Devices that a plan wants measured on another day as well. */
export function DuePart() {
  const due = useQuery({
    queryKey: ['due'],
    queryFn: () => value(api.GET('/api/bench/due')),
    refetchInterval: 300_000,
  });
  if (!due.data || due.data.length === 0) return null;
  return (
    <section className="mt-6">
      <h2>Due for their next session</h2>
      <ul>
        {due.data.map((d) => (
          <li key={`${d.planId}-${d.configuration.id}`} className="border-b border-hair-2 py-1.5">
            <Link
              to="/shelf/configurations/$configurationId"
              params={{ configurationId: String(d.configuration.id) }}
              className="font-semibold hover:underline"
            >
              {d.configuration.maker} {d.configuration.model}
            </Link>{' '}
            <span className="small">{d.configuration.name}</span>
            <span className="small block">
              measured on {d.days} of {d.of} days with “{d.plan}”, last on {day(d.last)}
              {d.today ? '; its next day is another one' : ''}{' '}
              {!d.today && (
                <Link to="/bench" search={{ plan: d.planId }} className="link">
                  invite it
                </Link>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
