import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { day } from '../format/format.ts';
import { Trouble } from '../ui/states.tsx';

const FIRST = 8;

/** Devices that a plan wants measured on another day as well. */
export function DuePart() {
  const due = useQuery({
    queryKey: ['due'],
    queryFn: () => value(api.GET('/api/bench/due')),
    refetchInterval: 300_000,
  });
  const [all, setAll] = useState(false);
  if (due.isError && due.data === undefined)
    return (
      <section className="mt-6">
        <h2>Due for their next session</h2>
        <Trouble error={due.error} again={() => void due.refetch()} />
      </section>
    );
  if (!due.data || due.data.length === 0) return null;
  const shown = all ? due.data : due.data.slice(0, FIRST);
  return (
    <section className="mt-6">
      <h2>Due for their next session</h2>
      <ul>
        {shown.map((d) => (
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
      {shown.length < due.data.length && (
        <button className="button mt-2" onClick={() => setAll(true)}>
          Show all {due.data.length}
        </button>
      )}
    </section>
  );
}
