import { useQuery } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { reading } from '../format/format.ts';
import { placeWords, scoreSpread, unusualWords } from './round-words.ts';

/** More scores are folded. */
const SHOWN = 8;

/** What a round that is over has measured. */
export function RoundScores({ seatId }: { seatId: number }) {
  const results = useQuery({
    queryKey: ['round', seatId],
    queryFn: () => value(api.GET('/api/bench/seats/{id}/results', { params: { path: { id: seatId } } })),
  });
  if (results.isError)
    return (
      <p role="alert" className="text-plum">
        {results.error.message}
      </p>
    );
  if (!results.data || results.data.scores.length === 0) return null;
  const { scores, place } = results.data;
  const list = (from: number, to?: number) => (
    <dl className="mt-1 flex flex-wrap gap-x-5 gap-y-0.5 text-[13.5px]">
      {scores.slice(from, to).map((s) => (
        <div key={s.testId} className="flex items-baseline gap-1.5">
          <dt className="text-ink-2">{s.test}</dt>
          <dd>
            <b className="font-semibold">{reading(s.value, s, s.resolution)}</b>{' '}
            <span className="small">{scoreSpread(s)}</span>
            {s.usual?.outside && (
              <span
                className="pill ml-1.5"
                data-tone="bad"
                title={`On other days it lay between ${reading(s.usual.low, s)} and ${reading(s.usual.high, s)}`}
              >
                not as usual
              </span>
            )}
          </dd>
        </div>
      ))}
    </dl>
  );
  return (
    <div className="mt-2" role="group" aria-label="Scores of this round">
      {scores.some((s) => s.usual?.outside) && (
        <p role="status" className="border-l-2 border-plum pl-3 text-[13.5px]">
          Out of its usual range: {unusualWords(scores)}. The room, or the device, is not as usual.
        </p>
      )}
      {place && <p className="text-[13.5px]">{placeWords(place)}</p>}
      {list(0, SHOWN)}
      {scores.length > SHOWN && (
        <details>
          <summary className="small cursor-pointer">{scores.length - SHOWN} more scores</summary>
          {list(SHOWN)}
        </details>
      )}
    </div>
  );
}
