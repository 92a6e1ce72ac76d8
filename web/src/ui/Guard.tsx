import { CatchBoundary, type ErrorComponentProps } from '@tanstack/react-router';
import type { ReactNode } from 'react';
import { errorWords } from '../format/format.ts';

/**
 * Keeps what cannot be shown from taking along what stands around it.
 *
 * @param of what it shows: something else is tried anew
 */
export function Guard({
  of,
  what,
  children,
  action,
}: {
  of: unknown;
  what: string;
  children: ReactNode;
  /** What can be done about it besides trying again. */
  action?: ReactNode;
}) {
  return (
    <CatchBoundary
      getResetKey={() => JSON.stringify(of) ?? ''}
      errorComponent={({ error, reset }: ErrorComponentProps) => (
        <div role="alert" className="my-3 border-l-2 border-plum pl-4">
          <p>
            {what} cannot be shown: {errorWords(error)}
          </p>
          <button className="button mt-2 mr-2" onClick={reset}>
            Try again
          </button>
          {action}
        </div>
      )}
    >
      {children}
    </CatchBoundary>
  );
}
