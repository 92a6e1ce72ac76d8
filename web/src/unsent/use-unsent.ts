import { useContext, useEffect, useState } from 'react';
import { AccessContext } from '../access/access-context.ts';
import { bringFromOldPlaces } from './old-places.ts';
import { UnsentStore, type Owner } from './store.ts';

/** One for each shelf and person in this page. */
const open = new Map<string, UnsentStore>();
const ready = new Map<UnsentStore, Promise<void>>();

/** What this person typed on this shelf and that is not stored yet. What earlier visits left is in it once it is ready. */
export function useUnsent(): UnsentStore {
  const access = useContext(AccessContext);
  return unsentOf({ shelf: access?.shelf ?? '', person: access?.person ?? '' });
}

export function unsentOf(owner: Owner): UnsentStore {
  const at = `${owner.shelf} ${owner.person}`;
  const there = open.get(at);
  if (there) return there;
  const made = new UnsentStore(owner);
  open.set(at, made);
  ready.set(
    made,
    made.ready.then(() => bringFromOldPlaces(made)),
  );
  return made;
}

/** Whether what earlier visits left is there, so that a form can begin with it. */
export function useUnsentReady(): boolean {
  const unsent = useUnsent();
  const [there, setThere] = useState<UnsentStore | null>(null);
  useEffect(() => {
    let left = false;
    void ready.get(unsent)?.then(() => left || setThere(unsent));
    return () => {
      left = true;
    };
  }, [unsent]);
  return there === unsent;
}

/** As after a reload: for tests. */
export function forgetOpenStores(): void {
  open.forEach((store) => store.close());
  open.clear();
  ready.clear();
}
