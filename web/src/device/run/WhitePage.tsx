import { useEffect, useRef, useState } from 'react';

/** The whole display white, to hold a meter of brightness against. */
export function WhitePage() {
  const [shown, setShown] = useState(false);
  const page = useRef<HTMLButtonElement>(null);
  const opener = useRef<HTMLButtonElement>(null);

  useEffect(() => {
    if (!shown) return;
    const back = opener.current;
    page.current?.focus();
    // Where a browser does not give the whole display, the page alone is white.
    void page.current?.requestFullscreen?.().catch(() => undefined);
    const left = () => !document.fullscreenElement && setShown(false);
    document.addEventListener('fullscreenchange', left);
    return () => {
      document.removeEventListener('fullscreenchange', left);
      if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined);
      back?.focus();
    };
  }, [shown]);

  return (
    <p className="mt-4">
      <button ref={opener} type="button" className="button" onClick={() => setShown(true)}>
        White page for a meter
      </button>
      {shown && (
        <button
          ref={page}
          type="button"
          aria-label="White page. Press it, or Escape, to go back."
          className="fixed inset-0 z-50 flex items-end justify-center bg-white pb-6 outline-none"
          onClick={() => setShown(false)}
          onKeyDown={(e) => e.key === 'Escape' && setShown(false)}
        >
          <span className="rounded bg-white px-2 text-[#767676]">Tap to go back</span>
        </button>
      )}
    </p>
  );
}
