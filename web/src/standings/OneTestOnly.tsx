import { deviceClass } from '../format/format.ts';
import type { StandingsSearch } from '../shell/search-params.ts';
import { scopeKey, scopeOf, type Standings } from './question/ask.ts';

/** Where a standing that was asked for over several tests came down to one, and what would say more. */
export function OneTestOnly({
  standings,
  search,
  onSay,
}: {
  standings: Standings;
  search: StandingsSearch;
  onSay: (change: Partial<StandingsSearch>) => void;
}) {
  const asked = scopeKey(search);
  const only = standings.metrics[0];
  if (standings.metrics.length !== 1 || !only || standings.leftOut.length === 0) return null;
  if (asked !== undefined && asked !== 'every') return null;
  const offers = standings.offers ?? [];
  const apart = standings.apart ?? [];
  return (
    <div role="status" className="mb-3 border-l-2 border-gold pl-3">
      <p className="font-title text-[19px]">By one test only: {only.test}</p>
      <p>
        These devices share no other test, so their places say nothing of the rest.{' '}
        {offers.length > 0 && (
          <>
            More would have a place over{' '}
            {offers.map((o, i) => (
              <span key={o.key}>
                {i > 0 && ', '}
                <button className="link" onClick={() => onSay(scopeOf(o.key))}>
                  {o.name} ({o.placed})
                </button>
              </span>
            ))}
            .{' '}
          </>
        )}
        {apart.map((a) => (
          <button
            key={a.deviceClass}
            className="link mr-2"
            onClick={() => onSay({ classes: [a.deviceClass], base: undefined })}
          >
            Rank the class {deviceClass(a.deviceClass)} by itself
          </button>
        ))}
      </p>
    </div>
  );
}
