import { useNavigate } from '@tanstack/react-router';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { leftOutWords } from './left-out.ts';
import { railScale, tickPath, type RailScale } from '../chart/Rail.tsx';
import { classes, percent, testGroup, type TestGroup } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { slotOf, tableActions, useTable } from '../shell/table-store.ts';
import { columns } from './columns.ts';
import { PublishedPart } from './PublishedPart.tsx';
import { StandingRow, type RowRails } from './StandingRow.tsx';
import type { Standings } from './StandingsView.tsx';

type Row = Standings['rows'][number];
type Line = { kind: 'row'; row: Row } | { kind: 'heading'; text: string };

const ROW_HEIGHT = 53;
const HEADING_HEIGHT = 46;

/** Placed ones first, then those that cannot have a place, each under what is the matter with them. */
function lines(rows: readonly Row[]): Line[] {
  const of = (status: Row['status']): Line[] => rows.filter((r) => r.status === status).map((row) => ({ kind: 'row', row }));
  const under = (text: string, list: Line[]): Line[] => (list.length > 0 ? [{ kind: 'heading', text }, ...list] : []);
  return [
    ...of('PLACED'),
    ...under('Provisional: results for less than half of the weight', of('PROVISIONAL')),
    ...under('Cannot be placed: no chain of shared tests leads to the base', of('NOT_LINKED')),
  ];
}

/** @param purpose that the sentence names; absent for the usual one */
export function StandingsTable({ standings, purpose }: { standings: Standings; purpose: number | undefined }) {
  const navigate = useNavigate();
  const table = useTable();
  const scroller = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [active, setActive] = useState(0);
  useLayoutEffect(() => {
    const watched = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)));
    watched.observe(scroller.current!);
    return () => watched.disconnect();
  }, []);

  const one = standings.metric;
  const groups = useMemo(() => (one ? [] : standings.groups.map((g) => g.group)), [standings, one]);
  const layout = columns(width, groups.length);
  const shownGroups = layout.group > 0 ? groups : [];
  const list = useMemo(() => lines(standings.rows), [standings]);
  const rails = useMemo(() => makeRails(standings, shownGroups, layout.overall, layout.group), [standings, layout.overall, layout.group, shownGroups.length]);

  const virtual = useVirtualizer({
    count: list.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (list[i]!.kind === 'row' ? ROW_HEIGHT : HEADING_HEIGHT),
    overscan: 6,
  });
  const move = (step: number) => {
    let next = active + step;
    while (list[next]?.kind === 'heading') next += step;
    if (!list[next]) return;
    setActive(next);
    virtual.scrollToIndex(next);
    requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(`[data-line="${next}"]`)?.focus());
  };
  useKeys([
    { key: 'ArrowDown', does: 'Next row', run: () => move(1) },
    { key: 'ArrowUp', does: 'Row before', run: () => move(-1) },
    { key: 'w', does: 'Why this place: the row against the base, test by test', run: () => {
      const line = list[active];
      const id = line?.kind === 'row' ? line.row.configuration.id : standings.base.id;
      if (id !== standings.base.id) void navigate({ to: '/compare', search: { ids: [standings.base.id, id], base: standings.base.id, ...(purpose ? { purpose } : {}) } });
    } },
    { key: 'Enter', does: 'Put the row on the table, or take it off', run: () => {
      const line = list[active];
      if (line?.kind === 'row' && document.activeElement?.hasAttribute('data-line')) tableActions.toggle(line.row.configuration.id);
    } },
  ]);

  const placed = standings.rows.filter((r) => r.status === 'PLACED').length;
  return (
    <>
      <div role="table" aria-label="Standings" aria-rowcount={list.length + 1} className="flex min-h-0 flex-1 flex-col">
        <div role="rowgroup">
          <div role="row" className="grid gap-x-2.5 border-b border-hair pb-1 text-[12px] text-ink-3" style={{ gridTemplateColumns: layout.template }}>
            <span role="columnheader" className="pl-2">Place</span>
            <span role="columnheader">Model and configuration</span>
            <span role="columnheader" className="text-right">{one ? one.unit : 'Index'}</span>
            <span role="columnheader">{one ? `${one.test}, right is better` : 'Overall, right is better'}</span>
            {shownGroups.map((g) => <span key={g} role="columnheader" className="truncate">{testGroup(g)}</span>)}
            <span role="columnheader" className="pr-2 text-right">{one ? 'Runs' : 'Tests'}</span>
          </div>
        </div>
        <div ref={scroller} role="rowgroup" className="min-h-0 flex-1 overflow-y-auto">
          <div className="relative" style={{ height: virtual.getTotalSize() }}>
            {width > 0 && virtual.getVirtualItems().map((item) => {
              const line = list[item.index]!;
              const style = { transform: `translateY(${item.start}px)`, height: item.size };
              return line.kind === 'heading' ? (
                <div key={item.key} role="row" className="absolute inset-x-0 top-0 flex items-end border-b border-hair pb-1" style={style}>
                  <h3 role="cell">{line.text}</h3>
                </div>
              ) : (
                <StandingRow key={item.key} row={line.row} index={item.index} style={style} template={layout.template} rails={rails} groups={shownGroups}
                  metric={one} tests={standings.metrics.length} base={standings.base.id} purpose={purpose} slot={slotOf(table, line.row.configuration.id)}
                  lit={table.lit === line.row.configuration.id} active={item.index === active} onActive={() => setActive(item.index)} />
              );
            })}
          </div>
        </div>
      </div>
      {standings.published.length > 0 && one && <PublishedPart published={standings.published} metric={one} />}
      <p className="small mt-2 -mb-3">
        {placed} placed among {classes(standings.classes)}; whiskers and ± are 95 % intervals, from run-to-run noise and from tests that are missing.
        {standings.leftOut.length > 0 && <> Left out: {leftOutWords(standings.leftOut)}.</>}
        {!one && <> Weights: {standings.groups.map((g) => `${testGroup(g.group)} ${percent(g.weight)}`).join(', ')}.</>}
      </p>
    </>
  );
}

function makeRails(standings: Standings, groups: readonly TestGroup[], overallWidth: number, groupWidth: number): RowRails {
  const rail = (merits: number[], width: number, half: number): { scale: RailScale; ticks: string } => {
    const scale = railScale(merits, width);
    return { scale, ticks: tickPath(merits, scale, half) };
  };
  const overall = standings.rows.flatMap((r) => (r.merit === undefined ? [] : [r.merit]));
  return {
    overall: rail(overall, overallWidth, 4),
    groups: new Map(groups.map((g) => [g, rail(standings.rows.flatMap((r) => r.groups.filter((m) => m.group === g).map((m) => m.merit)), groupWidth, 3)])),
  };
}
