import { useQuery } from '@tanstack/react-query';
import { useLayoutEffect, useRef, useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { MarkSign } from '../../chart/Mark.tsx';
import { testGroup } from '../../format/format.ts';
import { useTable } from '../../shell/table-store.ts';
import { useRows } from '../../ui/useRows.ts';
import { ratioAxis } from '../../chart/ratio-axis.ts';
import { times } from '../../format/ratio.ts';
import { axisKey, differenceAxes } from './difference-axes.ts';
import { ComparedLine } from './ComparedLine.tsx';
import type { Section } from './order.ts';
import { lineName, nameBelow } from './order.ts';
import { slotsOf } from './slots.ts';
import { howSure, type Sizes } from '../../format/verdict.ts';
import type { Words } from './words.ts';

type Comparison = Schemas['Comparison'];

/** Below this the lines scroll sideways beside their names. */
const NARROW = 690;

interface Props {
  comparison: Comparison;
  words: Words;
  sizes: Sizes | undefined;
  parts: readonly Section[];
  side: number;
  onSide: (side: number) => void;
  /** The column that is chosen already was pressed again. */
  onSort: () => void;
  open: number | undefined;
  onOpen: (metric: number | undefined) => void;
}

/** Every test that is compared, a line each; one side with its ratio on an axis, several as columns. */
export function ComparedTable({ comparison, words, parts, side, sizes, onSide, onSort, open, onOpen }: Props) {
  const area = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  useLayoutEffect(() => {
    const watched = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    watched.observe(area.current!);
    return () => watched.disconnect();
  }, []);
  const rows = parts.flatMap((p) => p.rows);
  const ids = [comparison.base.id, ...comparison.sides.map((s) => s.configuration.id)];
  const slots = slotsOf(useTable(), ids);
  // Marks need every single reading, so they come after the numbers.
  const marks = useQuery({
    queryKey: ['compared-marks', ids],
    queryFn: () => value(api.GET('/api/compare/marks', { params: { query: { ids } } })),
  });
  const kindsOf = (metric: number) => [
    ...new Set(marks.data?.filter((m) => m.metricId === metric).flatMap((m) => m.kinds) ?? []),
  ];
  const { propsOf } = useRows(rows, (r) => r.metric.id, [
    {
      key: 'Enter',
      does: 'Open the line, or close it',
      run: (r) => onOpen(open === r.metric.id ? undefined : r.metric.id),
    },
  ]);
  const alone = comparison.sides.length === 1;
  const materiality = 1 + comparison.materiality / 100;
  const axisWidth = Math.max(150, Math.min(420, width - 735));
  const axis = ratioAxis(
    rows.flatMap((r) =>
      r.cells.slice(0, 1).flatMap((c) => (c.ratio === undefined ? [] : [c.ratio, c.low ?? 1, c.high ?? 1])),
    ),
    materiality,
    axisWidth,
  );
  const differences = differenceAxes(rows, axisWidth);
  const narrow = width < NARROW;
  const template = alone
    ? narrow
      ? `128px 78px 78px ${axis.width}px 160px`
      : `minmax(150px,1fr) 104px 104px ${axis.width}px 272px`
    : narrow
      ? `128px 78px repeat(${comparison.sides.length}, 96px)`
      : `minmax(150px,1.3fr) 92px repeat(${comparison.sides.length}, minmax(96px, 1fr))`;
  return (
    <div ref={area} className="min-h-0 min-w-0 flex-1 overflow-auto" data-scroll="lines">
      <div role="table" aria-label="Test by test" className={alone && !narrow ? '' : 'w-fit min-w-full'}>
        <div
          role="row"
          className="sticky top-0 z-10 grid items-end gap-x-3 border-b border-hair bg-paper pb-1 text-[12px] text-ink-3"
          style={{ gridTemplateColumns: template }}
        >
          <span role="columnheader" className="sticky left-0 bg-paper pl-2">
            Test
          </span>
          <span role="columnheader" className="text-right">
            Base
          </span>
          {alone ? (
            <>
              <span role="columnheader" className="text-right">
                Compared
              </span>
              <span role="columnheader" className="relative block h-4" aria-label="Ratio to the base, right is better">
                {axis.ticks.map((t) => (
                  <span key={t} className="absolute -translate-x-1/2" style={{ left: axis.x(t) }}>
                    {times(t)}
                  </span>
                ))}
                <span className="absolute -translate-x-1/2" style={{ left: axis.x(1) }}>
                  same
                </span>
              </span>
              <span role="columnheader">In words</span>
            </>
          ) : (
            comparison.sides.map((s, i) => {
              const slot = slots(s.configuration.id);
              return (
                <span role="columnheader" key={s.configuration.id} aria-sort={i === side ? 'other' : undefined}>
                  <button
                    className="said block w-full rounded px-1 text-left leading-tight data-[on=true]:bg-leaf-soft"
                    data-on={i === side}
                    aria-pressed={i === side}
                    onClick={() => (i === side ? onSort() : onSide(i))}
                    title={`${s.configuration.maker} ${s.configuration.model}, ${s.configuration.name}`}
                  >
                    <span className="flex items-center gap-1">
                      {slot !== null && <MarkSign slot={slot} size={13} />}
                      <span className="truncate font-semibold text-ink">{s.configuration.model}</span>
                    </span>
                    <span className="block truncate">{s.configuration.name}</span>
                    <span className="block text-[14px] text-ink">
                      {s.overall ? (sizes === 'times' ? times(s.overall.ratio, 3) : s.overall.size) : '–'}
                    </span>
                    <span className="block">
                      {s.overall ? howSure(s.overall.verdict) : 'nothing shared'}
                      {i === side && parts.length > 0 && <span className="sr-only">, press to order by it</span>}
                    </span>
                  </button>
                </span>
              );
            })
          )}
        </div>
        {parts.map((part) => (
          <div key={part.group ?? 'all'} role="rowgroup">
            {part.group && (
              <div role="row" className="border-b border-hair pt-3 pb-0.5">
                <span role="rowheader" className="sticky left-0 block w-fit pl-2 font-title text-[15px] font-medium">
                  {testGroup(part.group)}
                </span>
              </div>
            )}
            {part.rows.map((row) => (
              <ComparedLine
                sizes={sizes}
                key={row.metric.id}
                row={row}
                name={nameBelow(row, lineName(row, rows), part.depth.get(row.metric.id) ?? 0)}
                depth={part.depth.get(row.metric.id) ?? 0}
                marks={kindsOf(row.metric.id)}
                comparison={comparison}
                words={words}
                axis={axis}
                differences={differences.get(axisKey(row))}
                template={template}
                rowProps={propsOf(row)}
                open={open === row.metric.id}
                onOpen={() => onOpen(open === row.metric.id ? undefined : row.metric.id)}
                side={side}
              />
            ))}
          </div>
        ))}
        {rows.length === 0 && (
          <p className="mt-6 pl-2 text-ink-2">
            No test was run on both. Put other configurations on the table, or plan the missing tests.
          </p>
        )}
      </div>
    </div>
  );
}
