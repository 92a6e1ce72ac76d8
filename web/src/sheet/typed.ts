import { errorWords } from '../format/format.ts';
import type { Unsent, UnsentStore } from '../unsent/store.ts';

/** A score on its way from the keyboard to the ledger. */
export interface Typed {
  session: number;
  testId: number;
  /** From 1. */
  run: number;
  text: string;
  byStopwatch: boolean;
  /** Being typed; entered and not confirmed yet; or refused by the server, with its reason. */
  state: 'typing' | 'waiting' | 'refused';
  why?: string;
}
type Score = Omit<Typed, 'session' | 'testId' | 'run'>;

/** The server looked at a score and will not take it. */
export class NotTaken extends Error {}

/** Sessions with scores that were entered on this computer and are not stored yet. */
export function unsentSessions(store: UnsentStore): number[] {
  const waiting = store.all('score').filter((kept) => (kept.body as Score).state === 'waiting');
  return [...new Set(waiting.map((kept) => typedOf(kept).session))];
}

const UNKEPT = 'This browser keeps nothing for this page, so what is typed here is lost when it is closed.';

interface Around {
  /** Confirms, throws NotTaken, or anything else where it is to be tried again. */
  send: (typed: Typed) => Promise<void>;
  /** Of two tabs with one session, one sends at a time. */
  alone?: (name: string, work: () => Promise<void>) => Promise<void>;
  retryMs?: number;
}

async function withLock(name: string, work: () => Promise<void>): Promise<void> {
  if (globalThis.navigator?.locks) await navigator.locks.request(name, work);
  else await work();
}

/**
 * What a person typed into a session, kept on this computer from the first key until the server has confirmed it: a click
 * beside the field, a reload, a closed lid and a lost network take nothing away.
 */
export class TypedScores {
  private readonly store: UnsentStore;
  private readonly session: number;
  private readonly around: Around;
  private all: readonly Typed[] = [];
  private readonly listeners = new Set<() => void>();
  private readonly leaveStore: () => void;
  private sending: Promise<void> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private closed = false;
  /** How many look at it. */
  private looking = 1;
  /** Why nothing gets through just now. */
  private away: string | null = null;

  constructor(store: UnsentStore, session: number, around: Around) {
    this.store = store;
    this.session = session;
    this.around = around;
    this.leaveStore = store.subscribe(() => this.look());
    this.look();
    void store.ready.then(() => {
      this.look();
      this.kick();
    });
  }

  get trouble(): string | null {
    return this.away ?? (this.store.keeps || this.all.length === 0 ? null : UNKEPT);
  }

  snapshot = (): readonly Typed[] => this.all;
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  at(testId: number, run: number): Typed | undefined {
    return this.all.find((t) => t.testId === testId && t.run === run);
  }

  /** Each key: what stands in the field now. Nothing in it is nothing typed. */
  typing(testId: number, run: number, text: string): void {
    if (text.trim() === '') this.drop(testId, run);
    else this.put(testId, run, { text, byStopwatch: false, state: 'typing' });
  }

  /** It is entered: sent now, or as soon as the server can be reached. */
  enter(testId: number, run: number, text: string, byStopwatch = false): void {
    this.put(testId, run, { text: text.trim(), byStopwatch, state: 'waiting' });
    this.kick();
  }

  /** A person takes back what was typed and not stored. */
  drop(testId: number, run: number): void {
    if (this.at(testId, run)) this.store.remove('score', this.key(testId, run));
  }

  /** Sends once more what was refused. */
  again(): void {
    for (const t of this.all.filter((one) => one.state === 'refused'))
      this.enter(t.testId, t.run, t.text, t.byStopwatch);
  }

  /** Enters what is only typed, tries to send everything once, and says what is left. */
  async settle(): Promise<{ waiting: Typed[]; refused: Typed[] }> {
    await this.store.ready;
    for (const kept of this.kept()) {
      const score = kept.body as Score;
      if (score.state === 'typing')
        await this.store.replace(kept, { body: { ...score, text: score.text.trim(), state: 'waiting' } });
    }
    this.kick();
    await this.sending;
    return {
      waiting: this.all.filter((t) => t.state === 'waiting'),
      refused: this.all.filter((t) => t.state === 'refused'),
    };
  }

  /** Tries again now, for instance because the network is back. */
  kick = (): void => {
    if (this.closed) return;
    clearTimeout(this.timer);
    this.sending = this.sending.then(() => this.deliver());
  };

  /** Nobody looks at it any more: it goes on until everything that was entered is stored, and ends then. */
  leave(): void {
    this.looking--;
    this.kick();
  }

  /** Somebody looks at it again. False where it has ended meanwhile. */
  stay(): boolean {
    if (!this.closed) this.looking++;
    return !this.closed;
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    this.leaveStore();
    this.listeners.clear();
  }

  private key = (testId: number, run: number) => `${this.session}.${testId}.${run}`;
  private kept = () => this.store.all('score', `${this.session}.`);
  private put(testId: number, run: number, score: Score): void {
    this.store.put('score', this.key(testId, run), score);
  }

  private look(): void {
    this.all = this.kept().map(typedOf);
    this.tell();
  }

  private tell(): void {
    this.listeners.forEach((listener) => listener());
  }

  private async deliver(): Promise<void> {
    const alone = this.around.alone ?? withLock;
    const { shelf, person } = this.store.owner;
    await alone(`yarrowmark-sheet-${shelf}-${person}-${this.session}`, async () => {
      for (;;) {
        if (this.closed) return;
        const first = this.kept().find((kept) => (kept.body as Score).state === 'waiting');
        // Another tab may have sent it meanwhile.
        const next = first && (await this.store.fresh(first));
        if (first && next?.order !== first.order) continue;
        if (!next) {
          this.away = null;
          this.tell();
          if (this.looking === 0) this.close();
          return;
        }
        try {
          await this.around.send(typedOf(next));
          await this.store.replace(next, null);
        } catch (error) {
          if (error instanceof NotTaken)
            await this.store.replace(next, {
              body: { ...(next.body as Score), state: 'refused', why: error.message } satisfies Score,
            });
          else {
            this.away = errorWords(error);
            this.tell();
            clearTimeout(this.timer);
            this.timer = setTimeout(this.kick, this.around.retryMs ?? 3_000);
            return;
          }
        }
      }
    });
  }
}

function typedOf(kept: Unsent): Typed {
  const [session = 0, testId = 0, run = 0] = kept.key.split('.').map(Number);
  return { session, testId, run, ...(kept.body as Score) };
}
