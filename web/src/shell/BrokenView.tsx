import type { ErrorComponentProps } from '@tanstack/react-router';
import { errorWords } from '../format/format.ts';
import { CopyButton } from '../ui/CopyButton.tsx';
import { useTitle } from './title.ts';

/** A view that failed; the rest of the program stays. */
export function BrokenView({ error, reset }: ErrorComponentProps) {
  useTitle('Cannot be shown');
  return (
    <div role="alert" className="my-10 max-w-[640px] border-l-2 border-plum pl-4">
      <h1 className="text-[22px]">This view cannot be shown</h1>
      <p className="mt-1 text-ink-2">
        Nothing that was stored or typed is lost. Try again, or go on with another view. If it stays like this, tell the
        person who runs the program what it said: “{errorWords(error)}”.
      </p>
      <p className="mt-3 flex gap-2">
        <button className="button button-main" onClick={reset}>
          Try again
        </button>
        <CopyButton
          text={`${window.location.href}\n${error instanceof Error ? (error.stack ?? error.message) : errorWords(error)}`}
          what="what it said"
        >
          copy what it said
        </CopyButton>
      </p>
    </div>
  );
}
