import type { Unsent } from './database.ts';

const JOURNAL = 'yarrowmark.unsent.';
type Place = Pick<Unsent, 'kind' | 'key'>;

/** Whether one outdoes what is there. */
export const later = (one: Unsent, there: Unsent | undefined) =>
  !there || there.order < one.order || (there.order === one.order && one.gone === true && !there.gone);

function storage(): Storage | null {
  try {
    return globalThis.localStorage ?? null;
  } catch {
    // A browser that gives the page no storage.
    return null;
  }
}

/** Changes of one owner that the database does not have yet; it can be written while a page closes. */
export class Journal {
  private readonly owner: Pick<Unsent, 'shelf' | 'person'>;

  constructor(owner: Pick<Unsent, 'shelf' | 'person'>) {
    this.owner = owner;
  }

  /** @returns whether it holds it, or something later */
  write(made: Unsent): boolean {
    try {
      // Another tab may have put down something later that the database does not have yet.
      if (later(made, this.at(made))) storage()!.setItem(this.keyOf(made), JSON.stringify(made));
      return true;
    } catch {
      // Too much for it, or there is none; the database takes it.
      return false;
    }
  }

  /** The database has it. What was put down later stays. */
  leave(known: Place & Pick<Unsent, 'order'>): void {
    const there = this.at(known);
    if (there && there.order <= known.order) storage()?.removeItem(this.keyOf(known));
  }

  all(): Unsent[] {
    const from = storage();
    const keys = Array.from({ length: from?.length ?? 0 }, (_, i) => from!.key(i)!);
    return keys
      .filter((key) => key.startsWith(JOURNAL))
      .flatMap((key) => {
        const one = read(key);
        return one?.shelf === this.owner.shelf && one.person === this.owner.person ? [one] : [];
      });
  }

  private at = (place: Place): Unsent | undefined => read(this.keyOf(place));
  private keyOf = ({ kind, key }: Place): string => `${JOURNAL}${this.owner.shelf}.${this.owner.person}.${kind}.${key}`;
}

function read(key: string): Unsent | undefined {
  try {
    return (JSON.parse(storage()?.getItem(key) ?? 'null') as Unsent | null) ?? undefined;
  } catch {
    // Cut off while it was written: the database has what was before.
    return undefined;
  }
}
