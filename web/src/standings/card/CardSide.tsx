import { Link } from '@tanstack/react-router';
import type { Schemas } from '../../api/client.ts';
import type { StandingsSearch } from '../../shell/search-params.ts';
import { countedVerdict, VERDICTS, tone } from '../../format/verdict.ts';
import { compareSearchOf } from '../../writeup/question/asked.ts';
import { ordinal, placeDetail, testName, type ReportCard } from './card.ts';

/** What somebody remembers of a card: its place, what it is best and worst at, and how far it is from the one before it. */
export function CardSide({
  card,
  comparison,
  charts,
  by,
}: {
  card: ReportCard;
  comparison: Schemas['Comparison'] | undefined;
  /** Where the same stands as charts. */
  charts: StandingsSearch;
  /** What the comparison was asked besides. */
  by: Schemas['ComparedBy'];
}) {
  return (
    <aside className="min-w-0" aria-label="In short">
      <h2>Place</h2>
      {card.place ? (
        <>
          <p className="font-title text-[44px] leading-tight">{ordinal(card.place.order)}</p>
          <p className="small">
            of {card.place.of} for {card.purpose}, over {card.scope}
            {placeDetail(card.place) && <span className="block">{placeDetail(card.place)}</span>}
          </p>
        </>
      ) : (
        <p className="small">No place over all: {card.noPlace}.</p>
      )}
      <Extremes title="Best at" at={card.best} card={card} />
      <Extremes title="Worst at" at={card.worst} card={card} />
      {comparison && <Against comparison={comparison} by={by} />}
      <p className="small mt-4 print:hidden">
        <Link to="/standings" search={charts} className="link">
          A chart for each test
        </Link>
      </p>
    </aside>
  );
}

function Extremes({ title, at, card }: { title: string; at: readonly number[]; card: ReportCard }) {
  if (at.length === 0) return null;
  return (
    <>
      <h2 className="mt-4">{title}</h2>
      <ul>
        {at.map((i) => {
          const row = card.rows[i]!;
          return (
            <li key={row.metric.id}>
              {testName(row.metric)}{' '}
              <b className={`font-semibold ${title === 'Worst at' ? 'text-plum' : ''}`}>{ordinal(row.place!.order)}</b>
              <span className="small"> of {row.place!.of}</span>
            </li>
          );
        })}
      </ul>
    </>
  );
}

function Against({ comparison, by }: { comparison: Schemas['Comparison']; by: Schemas['ComparedBy'] }) {
  const side = comparison.sides[0]!;
  const { overall } = side;
  return (
    <>
      <h2 className="mt-4">Against the {comparison.base.model}</h2>
      {overall ? (
        <>
          <p>
            <b
              className={`font-semibold ${{ gain: 'text-leaf', loss: 'text-plum', level: '', unsure: '' }[tone(overall.verdict)]}`}
            >
              {overall.size}
            </b>{' '}
            overall
          </p>
          <p className="small">
            {VERDICTS.filter((v) => (overall.counts[v] ?? 0) > 0)
              .map((v) => countedVerdict(v, overall.counts[v]!))
              .join(', ')}
          </p>
        </>
      ) : (
        <p className="small">{side.noOverall}</p>
      )}
      <p className="small">
        <Link
          to="/compare"
          search={compareSearchOf({ configuration: side.configuration.id, base: comparison.base.id, by })}
          className="link"
        >
          Compare the two
        </Link>
      </p>
    </>
  );
}
