import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { api, Problem, value, type Schemas } from '../../api/client.ts';
import { useUnsent } from '../../unsent/use-unsent.ts';
import { useLeftTexts, type LeftText } from './left-texts.ts';
import { PieceChanged, PieceGone, PieceRefused, PieceTexts } from './piece-texts.ts';
import type { Bodies, Piece, PieceKind } from '../question/questions.ts';

type Page = Schemas['WriteUpPage'];
type PieceRow = Schemas['PieceRow'];

/** What others write comes in by itself. */
const LOOK_MS = 5_000;

/** Something that was done and can be undone. */
interface Done {
  words: string;
  undo: () => Promise<unknown>;
}

async function put(id: number, piece: number, body: unknown, revision: number): Promise<PieceRow> {
  try {
    return await value(
      api.PUT('/api/write-ups/{id}/pieces/{piece}', {
        params: { path: { id, piece } },
        body: { body: body as Schemas['PieceBody'], revision },
      }),
    );
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if (error.code === 'piece-changed') throw new PieceChanged(error.body.now as PieceRow);
    if (error.status === 404) throw new PieceGone(error.message);
    throw error.status === 0 || error.status >= 500 ? error : new PieceRefused(error.message);
  }
}

/** Writing in one write-up: what is typed is kept here until the server has it, and never thrown away for what it sends. */
export function useWriting(id: number) {
  const queries = useQueryClient();
  const key = useMemo(() => ['write-up', id], [id]);
  const page = useQuery({
    queryKey: key,
    queryFn: () => value(api.GET('/api/write-ups/{id}', { params: { path: { id } } })),
    refetchInterval: LOOK_MS,
  });
  const unsent = useUnsent();
  const done = useRef<Done[]>([]);
  const [last, setLast] = useState<string>();
  const [failed, setFailed] = useState<string>();

  const refresh = useCallback(() => queries.invalidateQueries({ queryKey: key }), [queries, key]);
  const putRow = useCallback(
    (row: PieceRow) =>
      queries.setQueryData<Page>(key, (now) =>
        now ? { ...now, pieces: now.pieces.map((p) => (p.id === row.id ? row : p)) } : now,
      ),
    [queries, key],
  );

  const texts = useMemo(
    () =>
      new PieceTexts(unsent, id, {
        send: (piece, body, revision) =>
          put(id, piece, body, revision).catch((error: unknown) => {
            if (error instanceof PieceGone) void refresh();
            throw error;
          }),
        stored: (row) => {
          putRow(row);
          setFailed(undefined);
          // The revision of the whole rose with it.
          void refresh();
        },
      }),
    [unsent, id, putRow, refresh],
  );
  const seen = useSyncExternalStore(texts.subscribe, texts.snapshot);
  const loaded = page.data;
  const resumed = useRef<PieceTexts>(undefined);
  useEffect(() => {
    if (!loaded || resumed.current === texts) return;
    resumed.current = texts;
    void texts.resume(loaded.pieces);
  }, [texts, loaded]);
  const left = useLeftTexts(unsent, id, loaded?.pieces);
  const { type, settle, flush } = texts;

  useEffect(() => {
    texts.stay();
    const leaving = (event: BeforeUnloadEvent) => {
      const waits = texts.snapshot().size > 0;
      if (waits) void texts.flush();
      // Whatever does not get through is kept on this computer; only without that is leaving a loss.
      if (waits && !unsent.keeps) event.preventDefault();
    };
    window.addEventListener('beforeunload', leaving);
    return () => {
      window.removeEventListener('beforeunload', leaving);
      void texts.flush();
      texts.leave();
    };
  }, [texts, unsent]);

  const act = useCallback(
    async (words: string, run: () => Promise<unknown>, undo?: () => Promise<unknown>) => {
      try {
        await run();
        setFailed(undefined);
        if (undo) {
          done.current.push({ words, undo });
          setLast(words);
        }
      } catch (e) {
        setFailed((e as Error).message);
      }
      await refresh();
    },
    [refresh],
  );

  const pieces = useMemo(
    () =>
      (page.data?.pieces ?? []).map((row) => {
        const mine = seen.get(row.id);
        return (mine ? { ...row, body: mine.body } : row) as Piece;
      }),
    [page.data, seen],
  );

  const add = useCallback(
    <K extends PieceKind>(kind: K, body: Bodies[K], after: number | undefined) => {
      let made: number | undefined;
      return act(
        `Added a piece`,
        async () => {
          const row = await value(
            api.POST('/api/write-ups/{id}/pieces', {
              params: { path: { id } },
              body: { kind, body: body, ...(after === undefined ? {} : { after }) },
            }),
          );
          made = row.id;
        },
        () => value(api.DELETE('/api/write-ups/{id}/pieces/{piece}', { params: { path: { id, piece: made! } } })),
      );
    },
    [act, id],
  );

  const place = useCallback(
    (piece: number, after: number | undefined) =>
      value(
        api.PUT('/api/write-ups/{id}/pieces/{piece}/place', {
          params: { path: { id, piece } },
          body: after === undefined ? {} : { after },
        }),
      ),
    [id],
  );

  // Moving asks for the order of now, and must not be another act after each letter.
  const order = useRef<readonly number[]>([]);
  useEffect(() => {
    order.current = pieces.map((p) => p.id);
  }, [pieces]);

  /** @param to where it then stands among the others, from 0 */
  const move = useCallback(
    (piece: number, to: number) => {
      const all = order.current;
      const others = all.filter((p) => p !== piece);
      const before = all.indexOf(piece);
      if (before < 0 || to < 0 || to > others.length || to === before) return Promise.resolve();
      return act(
        'Moved a piece',
        () => place(piece, others[to - 1]),
        () => place(piece, others[before - 1]),
      );
    },
    [act, place],
  );

  const remove = useCallback(
    (piece: number, words: string) =>
      act(
        `Took out a ${words}`,
        async () => {
          // What is typed in it comes back with it.
          await texts.send(piece);
          await value(api.DELETE('/api/write-ups/{id}/pieces/{piece}', { params: { path: { id, piece } } }));
        },
        () => value(api.POST('/api/write-ups/{id}/pieces/{piece}/restore', { params: { path: { id, piece } } })),
      ),
    [act, id, texts],
  );

  /** Text that another visit left: put in as a new piece, or let go. */
  const settleLeft = useCallback(
    async (one: LeftText, what: 'insert' | 'discard') => {
      const after = order.current.includes(one.piece) ? one.piece : order.current.at(-1);
      if (what === 'insert') await add(one.kind, one.body as Bodies[PieceKind], after);
      unsent.remove('piece', one.key);
    },
    [add, unsent],
  );

  const undo = useCallback(async () => {
    const one = done.current.pop();
    if (one) {
      try {
        await one.undo();
      } catch (e) {
        setFailed((e as Error).message);
      }
    }
    setLast(done.current.at(-1)?.words);
    await refresh();
  }, [refresh]);

  /** What can be done with a piece; the same acts for as long as it is this write-up. */
  const acts = useMemo(() => ({ type, move, remove, settle }), [type, move, remove, settle]);
  const states = [...seen.values()].map((t) => t.state);
  return {
    page,
    pieces,
    acts,
    type,
    flush,
    settle,
    add,
    move,
    remove,
    undo,
    refresh,
    /** When what came back from an earlier visit was typed; nothing where nothing did. */
    backFrom: texts.backFrom,
    left,
    settleLeft,
    /** Stores what is on its way. @throws where something of it is not stored, so nothing may be made public */
    stored: async () => {
      await flush();
      const open = [...texts.snapshot().values()];
      if (open.some((t) => t.state === 'conflict'))
        throw new Error(
          'Someone else changed a piece that you changed too. Decide on it first; it is marked in the text.',
        );
      if (open.length > 0) throw new Error('Not everything you typed is saved yet. Wait until it is, and try again.');
      return page.refetch();
    },
    /** What undo would take back; nothing where there is nothing. */
    last,
    failed,
    stateOf: (piece: number) => seen.get(piece)?.state ?? 'saved',
    problemOf: (piece: number) => seen.get(piece)?.problem,
    theirsOf: (piece: number) => seen.get(piece)?.theirs,
    saving: states.find((s) => s === 'conflict' || s === 'failed') ?? states[0] ?? 'saved',
  };
}

export type Writing = ReturnType<typeof useWriting>;
export type Acts = Writing['acts'];
