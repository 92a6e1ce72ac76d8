import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { howSure, tone, TONE_CLASS } from '../format/verdict.ts';
import { Ready } from '../ui/states.tsx';

type Pair = Schemas['Pair'];

export const PAIRS = { queryKey: ['compare-pairs'], queryFn: () => value(api.GET('/api/compare/pairs')) };

/** What the latest changes came to: configurations that were made from one another on the same unit. */
export function ComparePairs() {
  const pairs = useQuery(PAIRS);
  return (
    <div className="max-w-[760px]">
      <p className="text-ink-2">
        Put two to eight configurations on the table: with <kbd>Enter</kbd> on a row of the{' '}
        <Link to="/standings" className="link">
          standings
        </Link>
        , or <kbd>t</kbd> on a configuration of the{' '}
        <Link to="/shelf" className="link">
          shelf
        </Link>
        . The one with the word base is what the others are compared with.
      </p>
      <Ready query={pairs} what="what could be compared">
        {(all) =>
          all.length === 0 ? null : (
            <section className="mt-6">
              <h2>Before and after</h2>
              <p className="small">What was changed on one unit, newest first, and what that came to over all tests.</p>
              <ul>
                {all.map((p) => (
                  <li key={`${p.before.id}-${p.after.id}`}>
                    <PairLine pair={p} />
                  </li>
                ))}
              </ul>
            </section>
          )
        }
      </Ready>
    </div>
  );
}

export function PairLine({ pair: { before, after, shared, outcome } }: { pair: Pair }) {
  return (
    <Link
      to="/compare"
      search={{ ids: [before.id, after.id], base: before.id }}
      className="group block border-b border-hair-2 py-1.5 hover:bg-sheet"
    >
      <span className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span className="font-semibold group-hover:underline">
          {after.maker} {after.model}
        </span>
        {outcome ? (
          <span>
            <span className={`font-semibold ${TONE_CLASS[tone(outcome.verdict)]}`}>{outcome.size}</span>
            {`, ${howSure(outcome.verdict)} `}
            <span className="small">
              over {outcome.tests} {outcome.tests === 1 ? 'test' : 'tests'}
            </span>
          </span>
        ) : (
          <span className="small">
            {shared} shared {shared === 1 ? 'number' : 'numbers'}, none of which counts in an overall
          </span>
        )}
      </span>
      <span className="small block break-words">
        {before.name} → {after.name}
      </span>
    </Link>
  );
}
