import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, Problem, value } from '../api/client.ts';
import type { Sheet } from './places.ts';
import { NotTaken, TypedScores, type Typed } from './typed.ts';

/** Answers that say nothing about the score: signed out, no permission just now, too slow, too many. */
const LATER = new Set([0, 401, 403, 408, 429]);

/** What is typed into a session, kept on this computer and sent; null until it is open. */
export function useTyped(session: number): TypedScores | null {
  const queries = useQueryClient();
  const [typed, setTyped] = useState<TypedScores | null>(null);
  useEffect(() => {
    let opened: TypedScores | null = null;
    let left = false;
    const send = async ({ testId, run, text, byStopwatch }: Typed) => {
      try {
        const page = await value(
          api.POST('/api/sessions/{id}/scores', {
            params: { path: { id: session } },
            body: { testId, run, text, byStopwatch },
          }),
        );
        queries.setQueryData<Sheet>(['sheet', session], page);
        for (const queryKey of [['ledger'], ['standings']]) void queries.invalidateQueries({ queryKey });
      } catch (error) {
        if (error instanceof Problem && error.status < 500 && !LATER.has(error.status))
          throw new NotTaken(error.message);
        throw error;
      }
    };
    void TypedScores.open(session, { send }).then((scores) => {
      if (left) return scores.close();
      opened = scores;
      window.addEventListener('online', scores.kick);
      setTyped(scores);
    });
    return () => {
      left = true;
      if (opened) {
        window.removeEventListener('online', opened.kick);
        opened.close();
      }
      setTyped(null);
    };
  }, [session, queries]);
  return typed;
}
