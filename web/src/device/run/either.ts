/** Aborted as soon as one of them is, with its reason. Browsers have had this of their own for too short a time. */
export function either(...signals: AbortSignal[]): AbortSignal {
  const both = new AbortController();
  for (const signal of signals) {
    if (signal.aborted) both.abort(signal.reason);
    else signal.addEventListener('abort', () => both.abort(signal.reason), { once: true, signal: both.signal });
  }
  return both.signal;
}
