import { useEffect, useState } from 'react';

/** What is typed, once it has not changed for a while: the server is not asked at every key. */
export function useSettled<T>(now: T, ms: number): T {
  const [settled, setSettled] = useState(now);
  useEffect(() => {
    const wait = setTimeout(() => setSettled(now), ms);
    return () => clearTimeout(wait);
  }, [now, ms]);
  return settled;
}
