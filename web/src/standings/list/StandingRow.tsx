import { Link } from '@tanstack/react-router';
import { memo } from 'react';
import type { RailScale } from '../../chart/Rail.tsx';
import type { Tick } from '../../chart/ticks.ts';
import * as format from '../../format/format.ts';
import { MarkSign } from '../../chart/Mark.tsx';
import { tableActions } from '../../shell/table-store.ts';
import type { Standings } from '../question/ask.ts';
import { againstBase, byDifferences, onRail } from '../question/held-against.ts';
import { NamingRail } from './NamingRail.tsx';

export interface OneRail {
  scale: RailScale;
  ticks: string;
  at: readonly Tick[];
}
export interface RowRails {
  overall: OneRail & { published: string | undefined };
  parts: ReadonlyMap<number, OneRail>;
}

interface Props {
  row: Standings['rows'][number];
  index: number;
  /** From the top of the list, in pixels; null on paper, where rows follow one another. */
  start: number | null;
  height: number;
  template: string;
  rails: RowRails;
  /** Positions of the parts that have a rail. */
  parts: readonly number[];
  names: readonly string[];
  metric: Standings['metric'];
  tests: number;
  base: number | undefined;
  slot: number | null;
  lit: boolean;
  active: boolean;
  /** The rail is below the words. */
  narrow: boolean;
  /** One line a row. */
  compact: boolean;
  /** Positions up, where weights are being tried out; null where it has no place before or after. */
  move: number | null | undefined;
  /** A tick of the overall rail that the keyboard is at. */
  cursor: number | undefined;
  nameOf: (id: number) => string;
  onActive: (index: number) => void;
  onWhy: (id: number) => void;
}

/** One configuration: place, name, index, and where it stands on each rail. All it is given stays the same while the list scrolls. */
export const StandingRow = memo(function StandingRow({
  row,
  index,
  start,
  height,
  template,
  rails,
  parts,
  names,
  metric,
  tests,
  base,
  slot,
  lit,
  active,
  narrow,
  compact,
  move,
  cursor,
  nameOf,
  onActive,
  onWhy,
}: Props) {
  const c = row.configuration;
  const name = `${c.maker} ${c.model}`;
  const hollow = row.status !== 'PLACED';
  const span = onRail(row, metric);
  const stale = [
    row.newerFirmware !== undefined && `firmware ${row.newerFirmware} is in force`,
    row.staleTests !== undefined &&
      `${row.staleTests} ${row.staleTests === 1 ? 'result is' : 'results are'} of an older suite version`,
  ].filter((s) => s !== false);
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      tabIndex={active ? 0 : -1}
      data-line={index}
      data-on-table={slot !== null}
      onFocus={() => onActive(index)}
      onClick={(event) => {
        if (!(event.target as HTMLElement).closest('a, button')) {
          event.currentTarget.focus();
        }
      }}
      onDoubleClick={() => tableActions.toggle(c.id)}
      style={
        start === null
          ? { gridTemplateColumns: template }
          : { transform: `translateY(${start}px)`, height, gridTemplateColumns: template }
      }
      className={`${start === null ? '' : 'absolute inset-x-0 top-0'} grid items-center gap-x-2.5 border-b border-hair-2 -outline-offset-2 data-[on-table=true]:bg-sheet hover:bg-sheet`}
    >
      <span role="cell" className="flex items-center font-title text-[17px] whitespace-nowrap">
        <button
          tabIndex={active ? 0 : -1}
          className="flex h-6 w-6 shrink-0 items-center justify-center font-sans text-ink-3 hover:text-ink"
          aria-pressed={slot !== null}
          aria-label={`On the table: ${name}`}
          title={slot === null ? 'Put it on the table' : 'Remove it from the table'}
          onClick={() => tableActions.toggle(c.id)}
        >
          {slot === null ? '+' : <MarkSign slot={slot} size={13} />}
        </button>
        {row.placeBest === undefined ? (
          <span aria-label="no place">–</span>
        ) : (
          <span className="flex items-baseline gap-1">
            {row.order ?? format.placeOf(row)}
            {row.order !== undefined && format.couldBe(row.placeBest, row.placeWorst!) !== undefined && (
              <span
                className="small font-sans"
                title={row.probably ? 'Probably: it rests on usual spreads' : undefined}
              >
                {format.couldBe(row.placeBest, row.placeWorst!)}
              </span>
            )}
          </span>
        )}
        {move !== undefined && move !== null && move !== 0 && (
          <span
            className={`ml-1 font-sans text-[12px] ${move > 0 ? 'text-leaf' : 'text-plum'}`}
            aria-label={move > 0 ? `up ${move}` : `down ${-move}`}
          >
            {move > 0 ? '▲' : '▼'}
            {Math.abs(move)}
          </span>
        )}
      </span>
      <span role="cell" className={`min-w-0 leading-snug ${compact ? 'flex items-baseline gap-2' : ''}`}>
        <Link
          to="/shelf/configurations/$configurationId"
          params={{ configurationId: String(c.id) }}
          className={`truncate font-semibold hover:underline ${compact ? 'max-w-[70%] shrink-0' : 'block'}`}
          title={name}
        >
          {name}
        </Link>
        <span className="small flex min-w-0 items-baseline gap-1.5" title={c.name}>
          <span className="truncate">
            {c.name}
            {c.id === base ? ' · base' : ''}
          </span>
          {(row.assumed ?? 0) > 0 && (
            <span
              className="pill shrink-0 px-1.5 text-[11px]"
              data-tone="wait"
              title={`${row.assumed} of its results ${row.assumed === 1 ? 'rests' : 'rest'} on a usual spread: it was run once, and how repeatable it is was not measured here`}
            >
              {row.probably ? 'probably' : 'usual spread'}
            </span>
          )}
          {stale.length > 0 && (
            <span className="pill shrink-0 px-1.5 text-[11px]" data-tone="wait" title={stale.join('; ')}>
              stale
            </span>
          )}
        </span>
      </span>
      <span role="cell" className="text-right leading-snug">
        {metric ? (
          <span className="text-[15px] font-semibold">{row.value === undefined ? '–' : format.number(row.value)}</span>
        ) : (
          <span className="text-[15px] font-semibold">
            {row.index === undefined ? '–' : format.index(row.index, row.low, row.high)}
          </span>
        )}
        {!compact && <span className="small block">{secondLine(row, metric)}</span>}
      </span>
      <span role="cell" className={narrow ? 'order-last col-start-2' : ''}>
        {row.merit !== undefined && (
          <NamingRail
            scale={rails.overall.scale}
            ticks={rails.overall.ticks}
            at={rails.overall.at}
            published={rails.overall.published}
            height={compact ? 24 : 30}
            merit={row.merit}
            low={span?.low}
            high={span?.high}
            base={0}
            slot={slot}
            hollow={hollow}
            lit={lit}
            nameOf={nameOf}
            onPick={tableActions.toggle}
            own={c.id}
            cursor={cursor}
            label={`${name}: ${row.index === undefined ? againstBase(row, metric) : `index ${format.index(row.index)}`}`}
          />
        )}
      </span>
      {parts.map((part) => {
        const mark = row.parts.find((m) => m.part === part);
        const rail = rails.parts.get(part);
        return (
          <span key={part} role="cell">
            {mark && rail ? (
              <NamingRail
                scale={rail.scale}
                ticks={rail.ticks}
                at={rail.at}
                nameOf={nameOf}
                onPick={tableActions.toggle}
                own={c.id}
                height={24}
                merit={mark.merit}
                low={mark.half === undefined ? undefined : mark.merit - mark.half}
                high={mark.half === undefined ? undefined : mark.merit + mark.half}
                slot={slot}
                hollow={hollow}
                lit={lit}
                radius={3.5}
                label={`${name}, ${names[part]}: ${format.index(100 * Math.exp(mark.merit))}`}
              />
            ) : (
              <span
                className="block text-center text-ink-3"
                title={`No result in ${names[part]}`}
                aria-label="no result"
              >
                ·
              </span>
            )}
          </span>
        );
      })}
      <span
        role="cell"
        className={`pr-2 text-right ${row.tests < tests ? '' : 'text-ink-3'} ${narrow ? 'order-last' : ''} ${compact ? 'flex justify-end gap-2' : ''}`}
      >
        <span>{metric ? row.runs : `${row.tests}/${tests}`}</span>
        {row.status !== 'NOT_LINKED' && !byDifferences(metric) && (
          <button
            tabIndex={active ? 0 : -1}
            onClick={() => onWhy(c.id)}
            className={`small link ${compact ? '' : 'ml-auto block'}`}
            aria-label={`Why this place: ${name}`}
          >
            why
          </button>
        )}
      </span>
    </div>
  );
});

function secondLine(row: Props['row'], metric: Props['metric']): string {
  if (row.difference)
    return row.difference.value === 0 && row.difference.low === 0 ? 'the base' : againstBase(row, metric);
  const oneTest = metric !== undefined;
  if (oneTest && row.index !== undefined) return `${row.atLeast ? 'at least ' : ''}index ${format.index(row.index)}`;
  if (row.atLeast) return 'at least';
  if (row.low !== undefined && row.high !== undefined)
    return row.low === row.high ? 'the base' : format.ends(row.low, row.high);
  return row.index === undefined ? '' : 'spread unknown';
}
