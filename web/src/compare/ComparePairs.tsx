import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { Ready } from '../ui/states.tsx';

/** What could be compared: configurations that were made from one another on the same unit. */
export function ComparePairs() {
  const pairs = useQuery({ queryKey: ['compare-pairs'], queryFn: () => value(api.GET('/api/compare/pairs')) });
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
        . The one with the word base is what the others are held against.
      </p>
      <Ready query={pairs} what="what could be compared">
        {(all) =>
          all.length === 0 ? null : (
            <section className="mt-6">
              <h2>Before and after</h2>
              <p className="small">
                Configurations that were changed on the same unit and measured on both sides of the change.
              </p>
              {all.map((p) => (
                <Link
                  key={`${p.before.id}-${p.after.id}`}
                  to="/compare"
                  search={{ ids: [p.before.id, p.after.id], base: p.before.id }}
                  className="group flex flex-wrap items-baseline gap-x-4 border-b border-hair-2 py-2 hover:bg-sheet"
                >
                  <span className="w-52 truncate font-semibold group-hover:underline">
                    {p.after.maker} {p.after.model}
                  </span>
                  <span className="min-w-0 flex-1 break-words max-sm:basis-full">
                    {p.before.name} → {p.after.name}
                  </span>
                  <span className="small">
                    {p.shared} shared {p.shared === 1 ? 'number' : 'numbers'}
                  </span>
                </Link>
              ))}
            </section>
          )
        }
      </Ready>
    </div>
  );
}
