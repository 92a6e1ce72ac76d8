import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Of an upright sheet inside its margins, in px: nothing measures it before it is printed. */
export const PAPER_WIDTH = 690;

/** Whether the view is being printed: a list that draws only what is on the screen then draws everything. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    // The picture is taken as soon as the event is over.
    const before = () => flushSync(() => setPrinting(true));
    const after = () => setPrinting(false);
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return printing;
}
