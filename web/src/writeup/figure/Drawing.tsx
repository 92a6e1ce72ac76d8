import { useEffect, useRef } from 'react';

/** A drawing of ours: made of numbers and escaped words, in the page's own colours. @param narrow its form for a phone */
export function Drawing({ svg, narrow, alt }: { svg: string; narrow?: string | undefined; alt: string }) {
  return narrow === undefined ? (
    <Painted svg={svg} alt={alt} />
  ) : (
    <>
      <Painted svg={svg} alt={alt} className="max-sm:hidden" />
      <Painted svg={narrow} alt={alt} className="sm:hidden" />
    </>
  );
}

function Painted({ svg, alt, className }: { svg: string; alt: string; className?: string }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const parsed = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
    parsed.setAttribute('width', '100%');
    parsed.removeAttribute('height');
    box.current?.replaceChildren(document.importNode(parsed, true));
  }, [svg]);
  return <div ref={box} role="img" aria-label={alt} className={className} />;
}
