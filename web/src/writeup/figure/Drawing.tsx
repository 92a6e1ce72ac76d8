import { useEffect, useRef } from 'react';

/** A drawing of ours: made of numbers and escaped words, in the page's own colours. */
export function Drawing({ svg, alt }: { svg: string; alt: string }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const parsed = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
    parsed.setAttribute('width', '100%');
    parsed.removeAttribute('height');
    box.current?.replaceChildren(document.importNode(parsed, true));
  }, [svg]);
  return <div ref={box} role="img" aria-label={alt} />;
}
