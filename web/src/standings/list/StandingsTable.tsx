import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { railScale, tickPath } from '../../chart/Rail.tsx';
import { ticksOf } from '../../chart/ticks.ts';
import { useDensity } from '../../shell/density.ts';
import { useKeys } from '../../shell/keys.ts';
import { slotOf, tableActions, useTable } from '../../shell/table-store.ts';
import { partName, type Standings } from '../question/ask.ts';
import { columns, NARROW } from './columns.ts';
import { lineOf, lines } from './lines.ts';
import { moves } from './moves.ts';
import { rememberRow, rowToReturnTo } from '../../ui/return-row.ts';
import { PAPER_WIDTH, usePrinting } from '../../ui/use-printing.ts';
import { StandingRow, type OneRail, type RowRails } from './StandingRow.tsx';

const ROW_HEIGHT = 53;
const COMPACT_HEIGHT = 28;
const NARROW_HEIGHT = 84;
const HEADING_HEIGHT = 46;

/** @param before the standing that is not tried out, to say who moved */
export function StandingsTable({
  standings,
  before,
  onWhy,
}: {
  standings: Standings;
  before?: Standings | undefined;
  onWhy: (id: number) => void;
}) {
  const table = useTable();
  const scroller = useRef<HTMLDivElement>(null);
  const printing = usePrinting();
  const [measured, setWidth] = useState(0);
  const width = printing ? PAPER_WIDTH : measured;
  const list = useMemo(() => lines(standings.rows), [standings]);
  const [active, setActiveAt] = useState(() => Math.max(0, lineOf(list, rowToReturnTo())));
  const setActive = useCallback(
    (index: number) => {
      const line = list[index];
      if (line?.kind === 'row') rememberRow(line.row.configuration.id);
      setActiveAt(index);
    },
    [list],
  );
  const [cursor, setCursor] = useState<number | undefined>();
  useLayoutEffect(() => {
    const watched = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)));
    watched.observe(scroller.current!);
    return () => watched.disconnect();
  }, []);

  const one = standings.metric;
  const compact = useDensity() === 'compact' && width >= NARROW;
  const layout = columns(width, standings.parts.length, compact);
  const names = useMemo(() => standings.parts.map(partName), [standings]);
  const parts = useMemo(() => largest(standings, layout.parts), [standings, layout.parts]);
  const rails = useMemo(
    () => makeRails(standings, parts, layout.overall, layout.part),
    [standings, layout.overall, layout.part, parts],
  );
  const moved = useMemo(
    () => (before && before !== standings ? moves(before, standings) : undefined),
    [before, standings],
  );
  const byId = useMemo(() => new Map(standings.rows.map((r) => [r.configuration.id, r])), [standings]);
  const nameOf = useCallback(
    (id: number) => {
      const r = byId.get(id);
      return r
        ? `${r.configuration.maker} ${r.configuration.model}, ${r.configuration.name}${r.index === undefined ? '' : ` · ${Math.round(r.index)}`}`
        : '';
    },
    [byId],
  );

  const height = layout.narrow ? NARROW_HEIGHT : compact ? COMPACT_HEIGHT : ROW_HEIGHT;
  const virtual = useVirtualizer({
    count: list.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (list[i]!.kind === 'row' ? height : HEADING_HEIGHT),
    overscan: 6,
  });
  // Sizes are remembered, so another kind of row must be measured anew.
  useLayoutEffect(() => virtual.measure(), [virtual, height]);
  const shown = printing
    ? list.map((line, index) => ({ key: index, index, start: 0, size: line.kind === 'row' ? height : HEADING_HEIGHT }))
    : virtual.getVirtualItems();
  // Once, when the list is there: to the row that Back returns to.
  const returning = useRef(rowToReturnTo() !== null);
  useEffect(() => {
    if (!returning.current || width === 0) return;
    returning.current = false;
    virtual.scrollToIndex(active, { align: 'center' });
    requestAnimationFrame(() =>
      requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(`[data-line="${active}"]`)?.focus()),
    );
  }, [width, active, virtual]);
  const move = (step: number) => {
    let next = active + step;
    while (list[next]?.kind === 'heading') next += step;
    if (!list[next]) return;
    setActive(next);
    setCursor(undefined);
    virtual.scrollToIndex(next);
    requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(`[data-line="${next}"]`)?.focus());
  };
  const current = () => {
    const line = list[active];
    return line?.kind === 'row' ? line.row.configuration.id : undefined;
  };
  const along = (step: number) => {
    const ticks = rails.overall.at;
    const own = ticks.findIndex((t) => t.id === current());
    setCursor(Math.min(ticks.length - 1, Math.max(0, (cursor ?? own) + step)));
  };
  useKeys([
    { key: 'ArrowDown', does: 'Next row', run: () => move(1) },
    { key: 'ArrowUp', does: 'Row before', run: () => move(-1) },
    { key: 'ArrowRight', does: 'Name the next better one on the rail', run: () => along(1) },
    { key: 'ArrowLeft', does: 'Name the next worse one on the rail', run: () => along(-1) },
    {
      key: 't',
      does: 'Put the named one on the table',
      run: () => {
        const tick = cursor === undefined ? undefined : rails.overall.at[cursor];
        if (tick) tableActions.toggle(tick.id);
      },
    },
    {
      key: 'w',
      does: 'Why this place',
      run: () => {
        const id = current();
        if (id !== undefined) onWhy(id);
      },
    },
    {
      key: 'Enter',
      does: 'Put the row on the table, or take it off',
      run: () => {
        // The focus follows an arrow one frame later; quick fingers press Enter before that.
        const at = document.activeElement;
        const id = current();
        if (id !== undefined && (at === document.body || at?.hasAttribute('data-line'))) tableActions.toggle(id);
      },
    },
  ]);

  return (
    <div
      role="table"
      aria-label="Standings"
      aria-rowcount={list.length + 1}
      className="flex min-h-0 min-w-0 flex-1 flex-col max-md:h-[70dvh] max-md:flex-none"
    >
      <div role="rowgroup">
        <div
          role="row"
          className="grid gap-x-2.5 border-b border-hair pb-1 text-[12px] text-ink-3"
          style={{ gridTemplateColumns: layout.template }}
        >
          <span role="columnheader" className="pl-2">
            Place
          </span>
          <span role="columnheader">Model and configuration</span>
          <span role="columnheader" className="text-right">
            {one ? one.unit : 'Index'}
          </span>
          <span role="columnheader" className={`truncate ${layout.narrow ? 'hidden' : ''}`}>
            {one ? `${one.name}, right is better` : 'Overall, right is better'}
          </span>
          {parts.map((p) => (
            <span key={p} role="columnheader" className="truncate" title={names[p]}>
              {names[p]}
            </span>
          ))}
          <span role="columnheader" className={`pr-2 text-right ${layout.narrow ? 'hidden' : ''}`}>
            {one ? 'Runs' : 'Tests'}
          </span>
        </div>
      </div>
      <div ref={scroller} role="rowgroup" data-scroller className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
        <div className="relative" style={printing ? undefined : { height: virtual.getTotalSize() }}>
          {width > 0 &&
            shown.map((item) => {
              const line = list[item.index]!;
              return line.kind === 'heading' ? (
                <div
                  key={item.key}
                  role="row"
                  aria-rowindex={item.index + 2}
                  className={`flex items-end border-b border-hair pb-1 ${printing ? '' : 'absolute inset-x-0 top-0'}`}
                  style={printing ? undefined : { transform: `translateY(${item.start}px)`, height: item.size }}
                >
                  <h3 role="cell">{line.text}</h3>
                </div>
              ) : (
                <StandingRow
                  key={item.key}
                  row={line.row}
                  index={item.index}
                  start={printing ? null : item.start}
                  height={item.size}
                  template={layout.template}
                  rails={rails}
                  parts={parts}
                  names={names}
                  metric={one}
                  tests={standings.metrics.length}
                  base={standings.base?.id}
                  slot={slotOf(table, line.row.configuration.id)}
                  lit={table.lit === line.row.configuration.id}
                  active={item.index === active}
                  narrow={layout.narrow}
                  compact={compact}
                  move={moved?.get(line.row.configuration.id)}
                  cursor={item.index === active ? cursor : undefined}
                  nameOf={nameOf}
                  onActive={setActive}
                  onWhy={onWhy}
                />
              );
            })}
        </div>
      </div>
    </div>
  );
}

/** Positions of the parts that have a rail, in their order: the heaviest ones where not all have. */
function largest(standings: Standings, most: number): number[] {
  return standings.parts
    .map((p, i) => ({ i, weight: p.weight }))
    .sort((a, b) => b.weight - a.weight || a.i - b.i)
    .slice(0, most)
    .map((p) => p.i)
    .sort((a, b) => a - b);
}

function makeRails(standings: Standings, parts: readonly number[], overallWidth: number, partWidth: number): RowRails {
  const rail = (merits: { id: number; merit: number }[], beside: number[], width: number, half: number): OneRail => {
    const scale = railScale([...merits.map((m) => m.merit), ...beside], width);
    return {
      scale,
      ticks: tickPath(
        merits.map((m) => m.merit),
        scale,
        half,
      ),
      at: ticksOf(merits, scale),
    };
  };
  const overall = standings.rows.flatMap((r) =>
    r.merit === undefined ? [] : [{ id: r.configuration.id, merit: r.merit }],
  );
  const published = standings.published.flatMap((p) => (p.index === undefined ? [] : [Math.log(p.index / 100)]));
  const main = rail(overall, published, overallWidth, 4);
  return {
    overall: { ...main, published: published.length > 0 ? tickPath(published, main.scale, 3) : undefined },
    parts: new Map(
      parts.map((p) => [
        p,
        rail(
          standings.rows.flatMap((r) =>
            r.parts.filter((m) => m.part === p).map((m) => ({ id: r.configuration.id, merit: m.merit })),
          ),
          [],
          partWidth,
          3,
        ),
      ]),
    ),
  };
}
