import { Link } from '@tanstack/react-router';
import { memo, type CSSProperties } from 'react';
import { Rail, type RailScale } from '../chart/Rail.tsx';
import * as format from '../format/format.ts';
import { tableActions } from '../shell/table-store.ts';
import type { Standings } from './StandingsView.tsx';

interface OneRail {
  scale: RailScale;
  ticks: string;
}
export interface RowRails {
  overall: OneRail;
  groups: ReadonlyMap<format.TestGroup, OneRail>;
}

interface Props {
  row: Standings['rows'][number];
  index: number;
  style: CSSProperties;
  template: string;
  rails: RowRails;
  groups: readonly format.TestGroup[];
  metric: Standings['metric'];
  tests: number;
  base: number;
  purpose: number | undefined;
  slot: number | null;
  lit: boolean;
  active: boolean;
  onActive: () => void;
}

/** One configuration: place, name, index, and where it stands on each rail. */
export const StandingRow = memo(function StandingRow({ row, index, style, template, rails, groups, metric, tests, base, purpose, slot, lit, active, onActive }: Props) {
  const c = row.configuration;
  const name = `${c.maker} ${c.model}`;
  const hollow = row.status !== 'PLACED';
  const ln = (v: number | undefined) => (v === undefined ? undefined : Math.log(v / 100));
  return (
    <div role="row" tabIndex={active ? 0 : -1} data-line={index} data-on-table={slot !== null} onFocus={onActive}
      onClick={(event) => { if (!(event.target as HTMLElement).closest('a')) { event.currentTarget.focus(); } }}
      onDoubleClick={() => tableActions.toggle(c.id)}
      style={{ ...style, gridTemplateColumns: template }}
      className="group absolute inset-x-0 top-0 grid items-center gap-x-2.5 border-b border-hair-2 -outline-offset-2 data-[on-table=true]:bg-sheet hover:bg-sheet">
      <span role="cell" className="pl-2 font-title text-[17px]">
        {row.placeBest === undefined ? <span aria-label="no place">–</span> : format.place(row.placeBest, row.placeWorst!)}
      </span>
      <span role="cell" className="min-w-0 leading-snug">
        <Link to="/shelf/configurations/$configurationId" params={{ configurationId: String(c.id) }} className="block truncate font-semibold hover:underline" title={name}>{name}</Link>
        <span className="small block truncate" title={c.name}>{c.name}{c.id === base ? ' · base' : ''}</span>
      </span>
      <span role="cell" className="text-right leading-snug">
        {metric ? (
          <span className="text-[15px] font-semibold">{row.value === undefined ? '–' : format.number(row.value)}</span>
        ) : (
          <span className="text-[15px] font-semibold">{row.index === undefined ? '–' : format.index(row.index)}</span>
        )}
        <span className="small block">{secondLine(row, metric !== undefined)}</span>
      </span>
      <span role="cell">
        {row.merit !== undefined && (
          <Rail {...rails.overall} height={30} merit={row.merit} low={ln(row.low)} high={ln(row.high)} base={0} slot={slot} hollow={hollow} lit={lit}
            label={`${name}: index ${format.index(row.index!)}`} />
        )}
      </span>
      {groups.map((group) => {
        const mark = row.groups.find((m) => m.group === group);
        const rail = rails.groups.get(group);
        return (
          <span key={group} role="cell">
            {mark && rail ? (
              <Rail {...rail} height={24} merit={mark.merit} low={mark.low} high={mark.high} slot={slot} hollow={hollow} lit={lit} radius={3.5}
                label={`${name}, ${format.testGroup(group)}: ${format.index(100 * Math.exp(mark.merit))}`} />
            ) : (
              <span className="block text-center text-ink-3" title={`No result in ${format.testGroup(group)}`} aria-label="no result">·</span>
            )}
          </span>
        );
      })}
      <span role="cell" className={`pr-2 text-right ${row.tests < tests ? '' : 'text-ink-3'}`}>
        {metric ? row.runs : `${row.tests}/${tests}`}
        {c.id !== base && row.status !== 'NOT_LINKED' && (
          <Link to="/compare" search={{ ids: [base, c.id], base, ...(purpose ? { purpose } : {}) }} tabIndex={active ? 0 : -1} data-on={active}
            className="small link block opacity-0 group-hover:opacity-100 focus:opacity-100 data-[on=true]:opacity-100" aria-label={`Why this place: ${name} against the base`}>why</Link>
        )}
      </span>
    </div>
  );
});

function secondLine(row: Props['row'], oneTest: boolean): string {
  if (oneTest && row.index !== undefined) return `index ${format.index(row.index)}`;
  if (row.low !== undefined && row.high !== undefined) return format.plusMinus(row.low, row.high);
  return row.index === undefined ? '' : 'spread unknown';
}
