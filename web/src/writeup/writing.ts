import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { api, Problem, value, type Schemas } from '../api/client.ts';
import { useUnsent } from '../unsent/use-unsent.ts';
import type { Bodies, Piece, PieceKind } from './questions.ts';

type Page = Schemas['WriteUpPage'];
type PieceRow = Schemas['PieceRow'];

/** Long enough not to store each letter, short enough that a lost page loses a word. */
const PAUSE_MS = 700;
/** What others write comes in by itself. */
const LOOK_MS = 5_000;

export type Saving = 'saved' | 'typing' | 'saving' | 'conflict' | 'failed';

/** What was typed in a piece, as it is kept on this computer. @param seen the revision that it began from */
interface KeptText {
  kind: PieceKind;
  body: unknown;
  seen: number;
}

/** Text that was not stored, of a piece that somebody took out meanwhile. */
export interface LeftText extends KeptText {
  key: string;
  since: string;
}

interface Typed {
  kind: PieceKind;
  body: unknown;
  /** The revision that it began from. */
  seen: number;
  state: Saving;
  /** What somebody else made of it meanwhile. */
  theirs?: PieceRow;
  problem?: string;
  timer?: ReturnType<typeof setTimeout>;
}

/** Something that was done and can be undone. */
interface Done {
  words: string;
  undo: () => Promise<unknown>;
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
  const typed = useRef(new Map<number, Typed>());
  /** Whether nobody looks at it any more: then nothing is tried again, because somebody else may sign in on this page. */
  const gone = useRef(false);
  /** What is typed, as it was when it changed last: the map itself is for what runs beside. */
  const [seen, setSeen] = useState<ReadonlyMap<number, Readonly<Typed>>>(new Map());
  const changed = useCallback(() => setSeen(new Map([...typed.current].map(([piece, t]) => [piece, { ...t }]))), []);
  const unsent = useUnsent();
  /** What was typed here earlier and is back: when the oldest of it was typed. */
  const [backFrom, setBackFrom] = useState<string>();
  const [left, setLeft] = useState<readonly LeftText[]>([]);
  const done = useRef<Done[]>([]);
  /** Rises when what is kept is to be looked at again. */
  const [backAt, setBackAt] = useState(0);
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

  /** Sends a piece once more; set below, because sending asks for it. */
  const later = useRef<(piece: number) => void>(() => undefined);
  const send = useCallback(
    async (piece: number): Promise<void> => {
      const mine = typed.current.get(piece);
      if (!mine || mine.state === 'saving' || mine.state === 'conflict') return;
      const { body } = mine;
      mine.state = 'saving';
      changed();
      try {
        const row = await value(
          api.PUT('/api/write-ups/{id}/pieces/{piece}', {
            params: { path: { id, piece } },
            body: { body: body as Schemas['JsonNode'], revision: mine.seen },
          }),
        );
        putRow(row);
        mine.seen = row.revision;
        if (mine.body === body) {
          typed.current.delete(piece);
          unsent?.remove('piece', `${id}.${piece}`);
        } else {
          // Somebody went on typing meanwhile.
          mine.state = 'typing';
          mine.timer = setTimeout(() => later.current(piece), PAUSE_MS);
        }
        setFailed(undefined);
        // The revision of the whole rose with it.
        void refresh();
      } catch (e) {
        if (e instanceof Problem && e.code === 'piece-changed') {
          mine.state = 'conflict';
          mine.theirs = e.body.now as PieceRow;
        } else if (e instanceof Problem && e.status === 404) {
          // Somebody took the piece out: the text stays, and is offered.
          typed.current.delete(piece);
          setBackAt((n) => n + 1);
          void refresh();
        } else {
          mine.state = 'failed';
          mine.problem = (e as Error).message;
          // A server that is away comes back.
          if (!gone.current && e instanceof Problem && (e.status === 0 || e.status >= 500))
            mine.timer = setTimeout(() => later.current(piece), 3_000);
        }
      }
      changed();
    },
    [id, changed, putRow, refresh, unsent],
  );

  useEffect(() => {
    later.current = (piece) => void send(piece);
  }, [send]);
  useEffect(() => {
    const all = typed.current;
    gone.current = false;
    return () => {
      gone.current = true;
      all.forEach((t) => clearTimeout(t.timer));
    };
  }, []);

  const type = useCallback(
    (piece: Piece, body: Bodies[PieceKind]) => {
      const now = typed.current.get(piece.id) ?? {
        kind: piece.kind,
        seen: piece.revision,
        state: 'typing' as Saving,
        body,
      };
      clearTimeout(now.timer);
      now.body = body;
      unsent?.put('piece', `${id}.${piece.id}`, { kind: piece.kind, body, seen: now.seen } satisfies KeptText);
      if (now.state !== 'saving' && now.state !== 'conflict') {
        now.state = 'typing';
        now.timer = setTimeout(() => void send(piece.id), PAUSE_MS);
      }
      typed.current.set(piece.id, now);
      changed();
    },
    [changed, send, unsent, id],
  );

  // What an earlier visit typed and could not store: it goes on where it was left, is asked about where somebody else changed
  // the piece meanwhile, and is offered where the piece is no more.
  const loaded = page.data;
  const looked = useRef(-1);
  useEffect(() => {
    if (!unsent || !loaded || looked.current === backAt) return;
    looked.current = backAt;
    void unsent.all('piece', `${id}.`).then((all) => {
      const orphans: LeftText[] = [];
      for (const one of all) {
        const piece = Number(one.key.slice(String(id).length + 1));
        const kept = one.body as KeptText;
        const row = loaded.pieces.find((p) => p.id === piece);
        if (typed.current.has(piece)) continue;
        if (!row) orphans.push({ ...kept, key: one.key, since: one.since });
        else if (JSON.stringify(row.body) === JSON.stringify(kept.body)) unsent.remove('piece', one.key);
        else {
          const same = row.revision === kept.seen;
          typed.current.set(piece, {
            kind: kept.kind,
            body: kept.body,
            seen: kept.seen,
            state: same ? 'typing' : 'conflict',
            ...(same ? {} : { theirs: row }),
          });
          setBackFrom((now) => now ?? one.since);
          if (same) later.current(piece);
        }
      }
      setLeft(orphans);
      changed();
    });
  }, [unsent, loaded, id, changed, backAt]);

  /** Stores whatever is still on its way. @returns once all of it is there */
  const flush = useCallback(async () => {
    for (const [piece, mine] of typed.current) {
      clearTimeout(mine.timer);
      if (mine.state === 'typing' || mine.state === 'failed') await send(piece);
    }
  }, [send]);

  useEffect(() => {
    const kept = typed.current;
    const leaving = (event: BeforeUnloadEvent) => {
      if (kept.size > 0) void flush();
      // Whatever does not get through is kept on this computer; only without that is leaving a loss.
      if (kept.size > 0 && !unsent) event.preventDefault();
    };
    window.addEventListener('beforeunload', leaving);
    return () => {
      window.removeEventListener('beforeunload', leaving);
      void flush();
    };
  }, [flush, unsent]);

  const settle = useCallback(
    (piece: number, take: 'mine' | 'theirs') => {
      const now = typed.current.get(piece);
      if (!now?.theirs) return;
      putRow(now.theirs);
      if (take === 'theirs') {
        typed.current.delete(piece);
        unsent?.remove('piece', `${id}.${piece}`);
      } else {
        now.seen = now.theirs.revision;
        now.state = 'typing';
        void send(piece);
      }
      changed();
    },
    [changed, putRow, send, unsent, id],
  );

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
              body: { kind, body: body as unknown as Schemas['JsonNode'], ...(after === undefined ? {} : { after }) },
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
          await send(piece);
          await value(api.DELETE('/api/write-ups/{id}/pieces/{piece}', { params: { path: { id, piece } } }));
        },
        () => value(api.POST('/api/write-ups/{id}/pieces/{piece}/restore', { params: { path: { id, piece } } })),
      ),
    [act, id, send],
  );

  /** Text of a piece that is no more: put in as a new piece, or let go. */
  const settleLeft = useCallback(
    async (one: LeftText, what: 'insert' | 'discard') => {
      if (what === 'insert') await add(one.kind, one.body as Bodies[PieceKind], order.current.at(-1));
      unsent?.remove('piece', one.key);
      setLeft((now) => now.filter((l) => l.key !== one.key));
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
    backFrom,
    left,
    settleLeft,
    /** Stores what is on its way. @throws where something of it is not stored, so nothing may be made public */
    stored: async () => {
      await flush();
      const open = [...typed.current.values()];
      if (open.some((t) => t.state === 'conflict'))
        throw new Error(
          'Somebody else changed a piece that you changed too. Decide on it first; it is marked in the text.',
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
