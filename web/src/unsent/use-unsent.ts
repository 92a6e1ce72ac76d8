import { useContext, useEffect, useState } from 'react';
import { AccessContext } from '../access/access-context.ts';
import { UnsentStore, type Owner } from './store.ts';

/** One for each shelf and person in this page. */
const open = new Map<string, Promise<UnsentStore>>();

function of(owner: Owner): Promise<UnsentStore> {
  const at = `${owner.shelf} ${owner.person}`;
  const there = open.get(at) ?? UnsentStore.open(owner);
  open.set(at, there);
  return there;
}

/** What this person typed on this shelf and that is not stored yet; null until it is open. */
export function useUnsent(): UnsentStore | null {
  const access = useContext(AccessContext);
  const shelf = access?.shelf ?? '';
  const person = access?.person ?? '';
  const [found, setFound] = useState<UnsentStore | null>(null);
  useEffect(() => {
    let left = false;
    void of({ shelf, person }).then((store) => left || setFound(store));
    return () => {
      left = true;
    };
  }, [shelf, person]);
  return found;
}
