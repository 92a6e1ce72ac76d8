import { useEffect, useState } from 'react';
import { useAccess } from '../access/AccessGate.tsx';
import { noteVisit } from './last-visit.ts';

const EVERY_MS = 60_000;

/** When this person was here the time before, as far as this browser knows. */
export function useLastVisit(): number | undefined {
  const { shelf, person } = useAccess();
  const owner = `${shelf} ${person}`;
  const [before] = useState(() => noteVisit(owner, Date.now()));
  useEffect(() => {
    // A tab that lies behind others for days is no visit.
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') noteVisit(owner, Date.now());
    }, EVERY_MS);
    return () => clearInterval(timer);
  }, [owner]);
  return before;
}
