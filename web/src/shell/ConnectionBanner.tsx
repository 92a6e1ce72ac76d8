import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, value } from '../api/client.ts';
import { bytes } from '../format/format.ts';

const AGAIN_MS = 2_000;

/** A line that says that the records are out of reach, or that their disk is nearly full; nothing while all is well. */
export function ConnectionBanner() {
  const queries = useQueryClient();
  const [away, setAway] = useState<string | null>(null);
  const state = useQuery({
    queryKey: ['state'],
    queryFn: () => value(api.GET('/api/state')),
    refetchInterval: 60_000,
    retry: false,
  });

  useEffect(() => {
    const told = (event: Event) => setAway((event as CustomEvent<string>).detail);
    window.addEventListener('yarrowmark:away', told);
    return () => window.removeEventListener('yarrowmark:away', told);
  }, []);

  useEffect(() => {
    if (away === null) return;
    const timer = setInterval(() => {
      void value(api.GET('/api/state')).then(
        (now) => {
          setAway(null);
          queries.setQueryData(['state'], now);
          // What could not be read meanwhile comes by itself.
          void queries.invalidateQueries();
        },
        () => {
          // Still away.
        },
      );
    }, AGAIN_MS);
    return () => clearInterval(timer);
  }, [away, queries]);

  const free = state.data?.freeBytes;
  const notes = state.data?.notes ?? [];
  if (away === null && free === undefined && notes.length === 0) return null;
  return (
    <p role="status" className="border-b border-hair bg-gold-soft px-5 py-2">
      {away !== null ? (
        <strong>{away}</strong>
      ) : (
        <>
          {free !== undefined && (
            <>
              <strong>The disk with the records has {bytes(free)} left.</strong> Free some space soon: when it is full,
              nothing more can be stored.{' '}
            </>
          )}
          {notes.join(' ')}
        </>
      )}
    </p>
  );
}
