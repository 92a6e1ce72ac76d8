import { useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';

export type Bench = Schemas['Bench'];
export type Lane = Schemas['Lane'];
const KEY = ['bench'];

/** Puts a lane where it belongs: in the place of the older state of the same seat, or first. */
export function withLane(lanes: readonly Lane[], lane: Lane): Lane[] {
  if (lane.phase === 'CLEARED') return lanes.filter((l) => l.seatId !== lane.seatId);
  return lanes.some((l) => l.seatId === lane.seatId)
    ? lanes.map((l) => (l.seatId === lane.seatId ? lane : l))
    : [lane, ...lanes];
}

/**
 * The bench, live. The whole is read once; after that each change comes as an event. A connection that was lost goes on
 * from the last event seen; where the server no longer has those, it says "reset" and the whole is read again.
 */
export function useBench(): UseQueryResult<Bench, Error> & { live: boolean } {
  const queries = useQueryClient();
  const [live, setLive] = useState(false);
  const bench = useQuery({ queryKey: KEY, queryFn: () => value(api.GET('/api/bench')), staleTime: Infinity });
  const cursor = bench.data?.cursor;

  useEffect(() => {
    if (cursor === undefined) return;
    const source = new EventSource(`/api/bench/events?after=${encodeURIComponent(cursor)}`);
    let again: ReturnType<typeof setTimeout> | undefined;
    source.onopen = () => setLive(true);
    source.addEventListener('lane', (event) => {
      const lane = JSON.parse(event.data as string) as Lane;
      queries.setQueryData<Bench>(KEY, (old) => old && { ...old, lanes: withLane(old.lanes, lane) });
      // A finished run is also a line of the ledger and moves the standings.
      void changed(queries, 'scores');
    });
    source.addEventListener('reset', () => void queries.invalidateQueries({ queryKey: KEY }));
    source.onerror = () => {
      setLive(false);
      // The browser reconnects by itself, except after an answer that is no stream: then the whole is read again.
      if (source.readyState === EventSource.CLOSED)
        again = setTimeout(() => void queries.invalidateQueries({ queryKey: KEY }), 3_000);
    };
    return () => {
      clearTimeout(again);
      source.close();
    };
  }, [cursor, queries]);
  return { ...bench, live };
}

/** The server's time now, and again every second while something counts down. */
export function useNow(serverNow: string | undefined): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const offset = serverNow ? new Date(serverNow).getTime() - Date.now() : 0;
    const look = () => setNow(Date.now() + offset);
    const first = setTimeout(look);
    const timer = setInterval(look, 1_000);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [serverNow]);
  return now;
}
