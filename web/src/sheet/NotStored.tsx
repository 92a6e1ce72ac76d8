import type { Typed } from './typed.ts';

/** Scores that the server did not take, each with the reason. */
export function NotStored({
  refused,
  nameOf,
  onChange,
  onDrop,
}: {
  refused: readonly Typed[];
  nameOf: (typed: Typed) => string;
  /** What goes back to the score; undefined where it cannot be typed anew. */
  onChange: (typed: Typed) => (() => void) | undefined;
  onDrop: (typed: Typed) => void;
}) {
  if (refused.length === 0) return null;
  return (
    <section aria-label="Not stored" className="mb-4 border-l-2 border-plum pl-3">
      <h2>Not stored</h2>
      <ul>
        {refused.map((t) => {
          const change = onChange(t);
          return (
            <li key={`${t.testId}-${t.run}`} className="py-0.5">
              {nameOf(t)}, “{t.text}”: {t.why}{' '}
              {change && (
                <button className="link ml-2" onClick={change}>
                  Change
                </button>
              )}{' '}
              <button className="link ml-2" onClick={() => onDrop(t)}>
                Remove
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
