import { Link } from '@tanstack/react-router';
import { Fragment } from 'react';
import type { Schemas } from '../../api/client.ts';
import { Rail, railScale, tickPath } from '../../chart/Rail.tsx';
import type { StandingsSearch } from '../../shell/search-params.ts';
import { useWidth } from '../../ui/use-width.ts';
import { scopeOf } from '../question/ask.ts';
import { againstWords, byGroup, placeWords, testName, valueWords, type CardRow, type ReportCard } from './card.ts';
import { RatingCell } from './RatingCell.tsx';

/** Below this, marks go under the words. */
const NARROW = 700;

/** Every test with its value, where it stands among the others, and how it compares with one of them. */
export function CardTable({
  card,
  who,
  comparison,
  slot,
  standing,
}: {
  card: ReportCard;
  /** The others, in words: "14 laptops". */
  who: string;
  comparison: Schemas['Comparison'] | undefined;
  slot: number | null;
  /** What the places are among: one of them leads to the standing that says the same. */
  standing: StandingsSearch;
}) {
  const [holder, width] = useWidth<HTMLDivElement>(900);
  const narrow = width < NARROW;
  const rail = narrow ? Math.max(160, width - 24) : Math.min(340, Math.round(width * 0.34));
  const beside = comparison?.base;
  return (
    <div ref={holder} className="wide min-w-0">
      <table className="data w-full" aria-label="Test by test">
        <thead>
          <tr>
            <th>Test</th>
            <th className="text-right">Value</th>
            {!narrow && <th style={{ width: rail }}>among {who}, right is better</th>}
            {!narrow && <th>Rating</th>}
            <th className="text-right">Place</th>
            {beside && <th className="text-right">Against {beside.model}</th>}
          </tr>
        </thead>
        <tbody>
          {byGroup(card.rows).map(([group, rows]) => (
            <Fragment key={group}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={(narrow ? 3 : 5) + (beside ? 1 : 0)}
                  className="pt-3 text-left font-title text-[15px] font-medium text-ink"
                >
                  {group}
                </th>
              </tr>
              {rows.map((row) => (
                <Line
                  key={row.metric.id}
                  row={row}
                  rail={rail}
                  narrow={narrow}
                  slot={slot}
                  standing={standing}
                  against={beside ? againstWords(row, comparison) : undefined}
                />
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Line({
  row,
  rail,
  narrow,
  slot,
  standing,
  against,
}: {
  row: CardRow;
  rail: number;
  narrow: boolean;
  slot: number | null;
  standing: StandingsSearch;
  against: string | undefined;
}) {
  const [place, range] = row.place ? placeWords(row.place) : ['', ''];
  const scale = railScale([0, ...row.others], rail);
  const marks = row.place && (
    <Rail
      scale={scale}
      ticks={tickPath(row.others, scale, 6)}
      height={20}
      merit={0}
      slot={slot}
      label={`${testName(row.metric)}: place ${place}${range && `, could be ${range}`}`}
    />
  );
  const name = testName(row.metric);
  return (
    <>
      <tr className={narrow && marks ? '[&>td]:border-b-0' : undefined}>
        <td title={`${row.metric.suite} ${row.metric.version}`}>
          {row.place ? (
            <Link
              to="/standings"
              search={{ ...standing, ...scopeOf(`metric:${row.metric.id}`), without: undefined }}
              className="hover:underline"
            >
              {name}
            </Link>
          ) : (
            name
          )}
          {row.unmeasured && (
            <span className="text-ink-3" title="Its noise rests on a usual spread: it was not measured here">
              {' '}
              ~
            </span>
          )}
        </td>
        <td className={`text-right ${row.value === undefined ? 'text-plum' : 'whitespace-nowrap'}`}>
          {valueWords(row)}
        </td>
        {!narrow && <td>{marks}</td>}
        {!narrow && (
          <td>
            <RatingCell row={row} />
          </td>
        )}
        <td className="text-right whitespace-nowrap">
          {narrow && (
            <span className="block">
              <RatingCell row={row} />
            </span>
          )}
          {place}
          {range && <span className="small max-sm:block"> ({range})</span>}
        </td>
        {against !== undefined && <td className="text-right">{against}</td>}
      </tr>
      {narrow && marks && (
        <tr>
          <td colSpan={against === undefined ? 3 : 4} className="pt-0">
            {marks}
          </td>
        </tr>
      )}
    </>
  );
}
