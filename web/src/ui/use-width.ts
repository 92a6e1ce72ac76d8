import { useEffect, useRef, useState, type RefObject } from 'react';
import { PAPER_WIDTH, usePrinting } from './use-printing.ts';

/** How wide an element is, in px, so that a drawing in it keeps its letters readable. */
export function useWidth<E extends HTMLElement>(first: number): [RefObject<E | null>, number] {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(first);
  const printing = usePrinting();
  useEffect(() => {
    const element = ref.current;
    if (!element || typeof ResizeObserver === 'undefined') return;
    const watched = new ResizeObserver(([entry]) => {
      const now = Math.floor(entry!.contentRect.width);
      if (now > 0) setWidth(now);
    });
    watched.observe(element);
    return () => watched.disconnect();
  }, []);
  return [ref, printing ? PAPER_WIDTH : width];
}
