import { useEffect, useRef, useState } from 'react';
import { inWords } from './in-words.ts';

/** Asks for the code that the bench shows; one that came with a scanned address is tried at once. */
export function Join({
  code,
  message,
  onJoin,
}: {
  code: string;
  message?: string | undefined;
  onJoin: (code: string) => Promise<void>;
}) {
  const [typed, setTyped] = useState(code);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const tried = useRef(false);

  async function join(text: string) {
    setBusy(true);
    setProblem(null);
    try {
      await onJoin(text);
    } catch (error) {
      setProblem(inWords(error));
    } finally {
      setBusy(false);
    }
  }

  useEffect(() => {
    if (code && !tried.current) {
      tried.current = true;
      void join(code);
    }
    // Once for each code of an address, whatever else the page says meanwhile.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [code]);

  return (
    <form
      className="py-8"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim()) void join(typed);
      }}
    >
      <h1>Join the bench</h1>
      <p className="mt-1 text-[16px] text-ink-2">Type the code that the bench shows: a word, two digits, a word.</p>
      {message && (
        <p role="status" className="mt-4 border-l-2 border-gold pl-3">
          {message}
        </p>
      )}
      <label className="small mt-6 block" htmlFor="code">
        Code
      </label>
      <input
        id="code"
        className="field font-title text-[26px] tracking-[0.05em] uppercase"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        autoComplete="off"
        autoCapitalize="characters"
        spellCheck={false}
        maxLength={60}
        autoFocus
        aria-invalid={problem !== null}
        aria-describedby="code-problem"
      />
      <p id="code-problem" role="alert" className="mt-2 min-h-6 text-plum">
        {problem}
      </p>
      <button className="button button-main mt-2 w-full py-3 text-[16px]" disabled={busy || !typed.trim()}>
        {busy ? 'Joining' : 'Join'}
      </button>
    </form>
  );
}
