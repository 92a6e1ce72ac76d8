import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useContext, useEffect, useState } from 'react';
import { AccessContext } from '../access/access-context.ts';
import { api, Problem, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import type { Sheet } from './places.ts';
import { NotTaken, TypedScores, unsentSessions, type Typed } from './typed.ts';

/** Answers that say nothing about the score: signed out, no permission just now, too slow, too many. */
const LATER = new Set([0, 401, 403, 408, 429]);

/** One for each session in this page: it outlives its sheet until what was entered is stored. */
const open = new Map<number, Promise<TypedScores>>();
/** Whose they are. Somebody else's wait on this computer until their owner is back. */
let openFor = '';

function opened(owner: string, session: number, queries: QueryClient): Promise<TypedScores> {
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
  return TypedScores.open(session, { send, owner });
}

async function taken(owner: string, session: number, queries: QueryClient): Promise<TypedScores> {
  if (openFor !== owner) {
    open.forEach((scores) => void scores.then((s) => s.close()));
    open.clear();
    openFor = owner;
  }
  const there = await open.get(session);
  if (there?.stay()) return there;
  const made = opened(owner, session, queries);
  open.set(session, made);
  return made;
}

function useOwner(): string {
  const access = useContext(AccessContext);
  return `${access?.shelf ?? ''} ${access?.person ?? ''}`;
}

/** What is typed into a session, kept on this computer and sent; null until it is open. */
export function useTyped(session: number): TypedScores | null {
  const queries = useQueryClient();
  const owner = useOwner();
  const [typed, setTyped] = useState<TypedScores | null>(null);
  useEffect(() => {
    let left = false;
    let mine: TypedScores | null = null;
    void taken(owner, session, queries).then((scores) => {
      if (left) return scores.leave();
      mine = scores;
      setTyped(scores);
    });
    return () => {
      left = true;
      mine?.leave();
      setTyped(null);
    };
  }, [owner, session, queries]);
  return typed;
}

/** Sends what an earlier visit to this page had entered and could not send, whatever view is open now. */
export function useUnsent(): void {
  const queries = useQueryClient();
  const owner = useOwner();
  useEffect(() => {
    const online = () => open.forEach((scores) => void scores.then((s) => s.kick()));
    window.addEventListener('online', online);
    return () => window.removeEventListener('online', online);
  }, []);
  useEffect(() => {
    unsentSessions(owner).then(
      (sessions) => {
        for (const session of sessions)
          if (!open.has(session) || openFor !== owner)
            void taken(owner, session, queries).then((scores) => scores.leave());
      },
      () => {
        // A browser that keeps nothing has nothing to send.
      },
    );
  }, [owner, queries]);
}
