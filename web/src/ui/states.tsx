import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { isAway, Problem } from '../api/client.ts';

/** Loading, failed, empty and ready look the same everywhere. */
export function Loading({ what }: { what: string }) {
  return (
    <p role="status" className="px-1 py-10 text-ink-2">
      Fetching {what}.
    </p>
  );
}

export function Trouble({ error, again }: { error: Error; again?: () => void }) {
  // What is gone is not there the next time either.
  const gone = error instanceof Problem && (error.status === 404 || error.status === 410);
  return (
    <div role="alert" className="my-8 border-l-2 border-plum pl-4">
      <p className="text-[16px]">{error.message}</p>
      {gone && (
        <button className="button mt-3" onClick={() => window.history.back()}>
          Go back
        </button>
      )}
      {again && !gone && (
        <button className="button mt-3" onClick={again}>
          Try again
        </button>
      )}
    </div>
  );
}

export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="my-10 max-w-[560px] border-l-2 border-gold pl-4">
      <h2>{title}</h2>
      <div className="mt-1 text-[15px] text-ink-2">{children}</div>
    </div>
  );
}

/** Shows a query in whichever of its states it is. Data that is being refreshed stays where it is. */
export function Ready<T>({
  query,
  what,
  children,
}: {
  query: UseQueryResult<T, Error>;
  what: string;
  children: (data: T) => ReactNode;
}) {
  if (query.isPending) return <Loading what={what} />;
  // What was read before is still true while nobody can be asked.
  if (query.isError && query.data !== undefined && isAway(query.error)) return <>{children(query.data)}</>;
  if (query.isError) return <Trouble error={query.error} again={() => void query.refetch()} />;
  return <>{children(query.data)}</>;
}

/** What went wrong with a change; nothing while nothing did. */
export function Failed({ of, className = '' }: { of: { isError: boolean; error: Error | null }; className?: string }) {
  if (!of.isError || !of.error) return null;
  return (
    <p role="alert" className={`${className} text-plum`}>
      {of.error.message}
    </p>
  );
}
