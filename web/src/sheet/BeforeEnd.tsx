import type { Typed } from './typed.ts';

/** What a session would be finished without. */
export interface Left {
  waiting: readonly Typed[];
  refused: readonly Typed[];
  /** Places nobody typed at, named. */
  empty: readonly string[];
}

const SHOWN = 6;

/** Names what is refused, unsent or empty before a session is finished. */
export function BeforeEnd({
  left,
  nameOf,
  onFinish,
  onAgain,
  onBack,
}: {
  left: Left;
  nameOf: (typed: Typed) => string;
  onFinish: () => void;
  onAgain: () => void;
  onBack: () => void;
}) {
  return (
    <section role="alertdialog" aria-label="Before it is finished" className="mb-4 border-l-2 border-gold bg-sheet p-3">
      {left.waiting.length > 0 && (
        <p>
          <b>{left.waiting.length} not sent yet</b>, because the server cannot be reached. They are saved on this
          computer: {left.waiting.slice(0, SHOWN).map(nameOf).join('; ')}
          {left.waiting.length > SHOWN && ` and ${left.waiting.length - SHOWN} more`}.
        </p>
      )}
      {left.refused.length > 0 && (
        <>
          <p>
            <b>{left.refused.length} not stored:</b>
          </p>
          <ul className="ml-5 list-disc">
            {left.refused.map((typed) => (
              <li key={`${typed.testId}-${typed.run}`}>
                {nameOf(typed)}, “{typed.text}”: {typed.why}
              </li>
            ))}
          </ul>
        </>
      )}
      {left.empty.length > 0 && (
        <p>
          <b>{left.empty.length} empty:</b> {left.empty.slice(0, SHOWN).join('; ')}
          {left.empty.length > SHOWN && ` and ${left.empty.length - SHOWN} more`}.
        </p>
      )}
      <p className="mt-2 flex gap-3">
        <button className="button button-main" autoFocus onClick={onBack}>
          Back to the scores
        </button>
        {left.waiting.length > 0 ? (
          <button className="button" onClick={onAgain}>
            Try again
          </button>
        ) : (
          <button className="button" onClick={onFinish}>
            Finish without them
          </button>
        )}
      </p>
    </section>
  );
}
