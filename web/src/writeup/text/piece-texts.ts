import type { Schemas } from '../../api/client.ts';
import { merged } from '../../unsent/merge.ts';
import type { Unsent, UnsentStore } from '../../unsent/store.ts';
import type { Bodies, Piece, PieceKind } from '../question/questions.ts';

type PieceRow = Schemas['PieceRow'];

export type Saving = 'saved' | 'typing' | 'saving' | 'conflict' | 'failed';

/** What was typed in a piece, as it is kept on this computer. */
export interface KeptText {
  kind: PieceKind;
  body: unknown;
  /** The revision that it began from, and what stood there. */
  seen: number;
  from: unknown;
}

/** Text that is not stored yet. */
export interface TypedText extends KeptText {
  state: Saving;
  /** What somebody else made of it meanwhile. */
  theirs?: PieceRow;
  problem?: string;
  timer?: ReturnType<typeof setTimeout>;
}

/** Somebody else changed the piece meanwhile. */
export class PieceChanged extends Error {
  readonly theirs: PieceRow;
  constructor(theirs: PieceRow) {
    super('Someone else changed it.');
    this.theirs = theirs;
  }
}
/** Somebody took the piece out. */
export class PieceGone extends Error {}
/** The server will not take it as it is; trying again by itself is no use. */
export class PieceRefused extends Error {}

interface Around {
  /** @throws PieceChanged, PieceGone, PieceRefused, or anything else where it is to be tried again */
  send: (piece: number, body: unknown, revision: number) => Promise<PieceRow>;
  /** The server has this now. */
  stored?: (row: PieceRow) => void;
  pauseMs?: number;
  retryMs?: number;
}

/** Long enough not to store each letter. */
const PAUSE_MS = 700;

/** What is typed in one write-up in this tab, until the server has it; never thrown away for what others make of it. */
export class PieceTexts {
  private readonly unsent: UnsentStore;
  private readonly writeUp: number;
  private readonly around: Around;
  private readonly typed = new Map<number, TypedText>();
  private seen: ReadonlyMap<number, Readonly<TypedText>> = new Map();
  private readonly listeners = new Set<() => void>();
  /** Whether nobody looks at it any more: then nothing is tried again, because somebody else may sign in on this page. */
  private left = false;
  /** When the oldest that an earlier visit left was typed; nothing where it left nothing. */
  backFrom: string | undefined;

  constructor(unsent: UnsentStore, writeUp: number, around: Around) {
    this.unsent = unsent;
    this.writeUp = writeUp;
    this.around = around;
  }

  snapshot = () => this.seen;
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** What an earlier visit of this tab typed and could not store goes on where it was left. */
  async resume(pieces: readonly PieceRow[]): Promise<void> {
    await this.unsent.ready;
    for (const row of pieces) {
      const one = this.unsent.get('piece', this.keyOf(row.id));
      if (!one || this.typed.has(row.id)) continue;
      const kept = one.body as KeptText;
      if (JSON.stringify(row.body) === JSON.stringify(kept.body)) this.unsent.remove('piece', one.key);
      else {
        // Whether somebody else changed it meanwhile is found as it is sent.
        this.typed.set(row.id, { ...kept, state: 'typing' });
        this.backFrom ??= one.since;
        void this.send(row.id);
      }
    }
    this.tell();
  }

  type = (piece: Pick<Piece, 'id' | 'kind' | 'revision' | 'body'>, body: Bodies[PieceKind]): void => {
    const now = this.typed.get(piece.id) ?? {
      kind: piece.kind,
      seen: piece.revision,
      from: piece.body,
      state: 'typing' as Saving,
      body,
    };
    clearTimeout(now.timer);
    now.body = body;
    this.typed.set(piece.id, now);
    this.keep(piece.id, now);
    if (now.state !== 'saving' && now.state !== 'conflict') this.soon(piece.id, now);
    this.tell();
  };

  /** Of a piece that two people changed: which of both it is to be. */
  settle = (piece: number, take: 'mine' | 'theirs'): void => {
    const now = this.typed.get(piece);
    if (!now?.theirs) return;
    this.around.stored?.(now.theirs);
    if (take === 'theirs') this.confirmed(piece);
    else {
      Object.assign(now, { seen: now.theirs.revision, from: now.theirs.body, state: 'typing' });
      this.keep(piece, now);
      void this.send(piece);
    }
    this.tell();
  };

  /** Stores whatever is still on its way. @returns once all of it was tried */
  flush = async (): Promise<void> => {
    for (const [piece, mine] of this.typed) {
      clearTimeout(mine.timer);
      if (mine.state === 'typing' || mine.state === 'failed') await this.send(piece);
    }
  };

  async send(piece: number): Promise<void> {
    const mine = this.typed.get(piece);
    if (!mine || mine.state === 'saving' || mine.state === 'conflict') return;
    const { body } = mine;
    mine.state = 'saving';
    this.tell();
    try {
      const row = await this.around.send(piece, body, mine.seen);
      this.around.stored?.(row);
      mine.seen = row.revision;
      mine.from = row.body;
      if (mine.body === body) this.confirmed(piece);
      // Somebody went on typing meanwhile.
      else {
        this.keep(piece, mine);
        this.soon(piece, mine);
      }
    } catch (error) {
      if (error instanceof PieceChanged) this.meet(piece, mine, error.theirs);
      else if (error instanceof PieceGone) this.typed.delete(piece);
      else {
        mine.state = 'failed';
        mine.problem = (error as Error).message;
        // A server that is away comes back.
        if (!this.left && !(error instanceof PieceRefused))
          mine.timer = setTimeout(() => void this.send(piece), this.around.retryMs ?? 3_000);
      }
    }
    this.tell();
  }

  stay(): void {
    this.left = false;
  }
  /** Nobody looks at it any more. */
  leave(): void {
    this.left = true;
    this.typed.forEach((t) => clearTimeout(t.timer));
  }

  private keyOf = (piece: number): Unsent['key'] => `${this.writeUp}.${piece}.${this.unsent.tab}`;

  private meet(piece: number, mine: TypedText, theirs: PieceRow): void {
    const both = merged(mine.from, mine.body, theirs.body);
    if (both === null) {
      mine.state = 'conflict';
      mine.theirs = theirs;
      return;
    }
    Object.assign(mine, { body: both, from: theirs.body, seen: theirs.revision });
    this.keep(piece, mine);
    this.soon(piece, mine);
  }

  private keep(piece: number, { kind, body, seen, from }: TypedText): void {
    this.unsent.put('piece', this.keyOf(piece), { kind, body, seen, from } satisfies KeptText);
  }

  private soon(piece: number, mine: TypedText): void {
    mine.state = 'typing';
    if (!this.left) mine.timer = setTimeout(() => void this.send(piece), this.around.pauseMs ?? PAUSE_MS);
  }

  private confirmed(piece: number): void {
    this.typed.delete(piece);
    this.unsent.remove('piece', this.keyOf(piece));
  }

  private tell(): void {
    this.seen = new Map([...this.typed].map(([piece, t]) => [piece, { ...t }]));
    this.listeners.forEach((listener) => listener());
  }
}
