import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, Problem, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import type { UnsentStore } from '../unsent/store.ts';
import { useUnsent } from '../unsent/use-unsent.ts';
import type { Sheet } from './places.ts';
import { NotTaken, TypedScores, unsentSessions, type Typed } from './typed.ts';

/** Answers that say nothing about the score: signed out, no permission just now, too slow, too many. */
const LATER = new Set([0, 401, 403, 408, 429]);

/** One for each session in this page: it outlives its sheet until what was entered is stored. */
const open = new Map<number, TypedScores>();
/** Whose they are. Somebody else's wait on this computer until their owner is back. */
let openFor: UnsentStore | undefined;

function opened(unsent: UnsentStore, session: number, queries: QueryClient): TypedScores {
  const send = async ({ testId, run, text, byStopwatch }: Typed) => {
    try {
      const page = await value(
        api.POST('/api/sessions/{id}/scores', {
          params: { path: { id: session } },
          body: { testId, run, text, byStopwatch },
        }),
      );
      queries.setQueryData<Sheet>(['sheet', session], page);
      void changed(queries, 'scores');
    } catch (error) {
      const later =
        !(error instanceof Problem) ||
        error.status >= 500 ||
        LATER.has(error.status) ||
        error.code === 'page-of-another';
      throw later ? error : new NotTaken(error.message);
    }
  };
  return new TypedScores(unsent, session, { send });
}

function taken(unsent: UnsentStore, session: number, queries: QueryClient): TypedScores {
  if (openFor !== unsent) {
    open.forEach((scores) => scores.close());
    open.clear();
    openFor = unsent;
  }
  const there = open.get(session);
  if (there?.stay()) return there;
  const made = opened(unsent, session, queries);
  open.set(session, made);
  return made;
}

/** What is typed into a session, kept on this computer and sent; null until it is open. */
export function useTyped(session: number): TypedScores | null {
  const queries = useQueryClient();
  const unsent = useUnsent();
  const [typed, setTyped] = useState<TypedScores | null>(null);
  useEffect(() => {
    let left = false;
    const scores = taken(unsent, session, queries);
    void unsent.ready.then(() => left || setTyped(scores));
    return () => {
      left = true;
      scores.leave();
      setTyped(null);
    };
  }, [unsent, session, queries]);
  return typed;
}

/** Sends what an earlier visit to this page had entered and could not send, whatever view is open now. */
export function useSendUnsent(): void {
  const queries = useQueryClient();
  const unsent = useUnsent();
  useEffect(() => {
    const online = () => open.forEach((scores) => scores.kick());
    window.addEventListener('online', online);
    return () => window.removeEventListener('online', online);
  }, []);
  useEffect(() => {
    let left = false;
    void unsent.ready.then(() => {
      if (left) return;
      for (const session of unsentSessions(unsent))
        if (!open.has(session) || openFor !== unsent) taken(unsent, session, queries).leave();
    });
    return () => {
      left = true;
    };
  }, [unsent, queries]);
}
