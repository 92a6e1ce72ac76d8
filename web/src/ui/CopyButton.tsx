import { useState } from 'react';

/** Puts a text on the clipboard, and says that it did. */
export function CopyButton({ text, what, children = 'copy' }: { text: string; what: string; children?: string }) {
  const [state, setState] = useState<'ready' | 'copied' | 'refused'>('ready');
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setState('copied');
    } catch {
      // Only a secure page may write there; the text can still be marked and copied.
      setState('refused');
    }
  };
  return (
    <button
      className="small link shrink-0"
      aria-label={`Copy ${what}`}
      onClick={() => void copy()}
      onBlur={() => setState('ready')}
    >
      {state === 'ready' ? children : state === 'copied' ? 'copied' : 'the browser does not allow it here'}
    </button>
  );
}
