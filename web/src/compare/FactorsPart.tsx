import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { reading } from '../format/format.ts';
import { Choice } from '../ui/Choice.tsx';
import { Ready } from '../ui/states.tsx';
import { times } from '../format/ratio.ts';
import { CopyButton } from '../ui/CopyButton.tsx';
import { table } from '../export/csv.ts';
import { drawFactors } from '../writeup/figure/factor-cells.ts';
import { figurePage } from '../writeup/figure/figure-page.ts';
import { ExportMenu } from '../export/ExportMenu.tsx';
import { named } from '../format/named.ts';

type Grid = Schemas['FactorGrid'];
export interface Factors {
  first: string | undefined;
  second: string | undefined;
  metric: number | undefined;
}

/** Two facts as a grid: what each does by itself, and whether one changes what the other does. */
export function FactorsPart({
  ids,
  factors,
  purpose,
  onChoose,
}: {
  ids: number[];
  factors: Factors;
  purpose: number | undefined;
  onChoose: (next: Factors) => void;
}) {
  const grid = useQuery({
    queryKey: ['factors', ids, factors, purpose],
    queryFn: () =>
      value(
        api.GET('/api/compare/factors', {
          params: {
            query: {
              ids,
              ...(factors.first ? { first: factors.first } : {}),
              ...(factors.second ? { second: factors.second } : {}),
              ...(factors.metric ? { metric: factors.metric } : {}),
              ...(purpose ? { purpose } : {}),
            },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  return (
    <Ready query={grid} what="the grid">
      {(data) => (
        <GridOf
          grid={data}
          onChoose={(change) =>
            onChoose({ first: data.first?.key, second: data.second?.key, metric: factors.metric, ...change })
          }
        />
      )}
    </Ready>
  );
}

function GridOf({ grid, onChoose }: { grid: Grid; onChoose: (change: Partial<Factors>) => void }) {
  const { first, second } = grid;
  if (!first || !second) {
    return (
      <p className="mt-4 border-l-2 border-gold pl-4 text-[15px] text-ink-2">
        Two factors need configurations that differ in two facts, each in two to six ways. These differ in{' '}
        {grid.choices.length === 0 ? 'none' : grid.choices.map((c) => c.label).join(', ')}. Put more on the table.
      </p>
    );
  }
  const options = (other: string) =>
    grid.choices
      .filter((c) => c.key !== other)
      .map((c) => ({ value: c.key, label: c.label, detail: c.levels.join(' · ') }));
  return (
    <div className="max-w-[1000px]">
      <p className="text-[16px] text-ink-2">
        What do{' '}
        <Choice
          name="First factor"
          value={first.key}
          options={options(second.key)}
          onChoose={(key) => onChoose({ first: key })}
        >
          {first.label.toLowerCase()}
        </Choice>{' '}
        and{' '}
        <Choice
          name="Second factor"
          value={second.key}
          options={options(first.key)}
          onChoose={(key) => onChoose({ second: key })}
        >
          {second.label.toLowerCase()}
        </Choice>{' '}
        do by themselves and together, by{' '}
        <Choice
          name="What the cells hold"
          value={grid.metric?.id}
          options={[
            { value: undefined as number | undefined, label: 'the overall of every shared test' },
            ...grid.metrics.map((m) => ({ value: m.id, label: m.test, detail: m.unit })),
          ]}
          onChoose={(metric) => onChoose({ metric })}
        >
          {grid.metric
            ? grid.metric.test
            : `the overall of ${grid.metrics.length} shared ${grid.metrics.length === 1 ? 'test' : 'tests'}`}
        </Choice>
        ?
      </p>
      <div className="overflow-x-auto">
        <table className="mt-4 border-collapse">
          <thead>
            <tr>
              <th className="small px-3 pb-1 text-left font-normal">
                {first.label} ↓ {second.label} →
              </th>
              {second.levels.map((l) => (
                <th key={l} scope="col" className="border-b border-hair px-4 pb-1 text-left font-semibold">
                  {l}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {grid.rows.map((row) => (
              <tr key={row.level}>
                <th scope="row" className="border-r border-hair px-3 py-2 text-left font-semibold">
                  {row.level}
                </th>
                {row.cells.map((cell, i) => (
                  <td key={i} className="min-w-44 border-b border-hair-2 px-4 py-2 align-top">
                    {cell.configuration ? (
                      <>
                        <span className="font-title text-[21px]">
                          {cell.value !== undefined && grid.metric
                            ? reading(cell.value, grid.metric)
                            : cell.ratio !== undefined
                              ? times(cell.ratio, 3)
                              : '–'}
                        </span>
                        {grid.metric && cell.ratio !== undefined && (
                          <span className="small ml-2">{times(cell.ratio, 3)}</span>
                        )}
                        <Link
                          to="/shelf/configurations/$configurationId"
                          params={{ configurationId: String(cell.configuration.id) }}
                          className="small block max-w-56 truncate hover:underline"
                          title={cell.configuration.name}
                        >
                          {cell.configuration.model}, {cell.configuration.name}
                        </Link>
                        {cell.others > 0 && (
                          <span className="small block text-ink-3">the latest of {cell.others + 1}</span>
                        )}
                      </>
                    ) : (
                      <>
                        <span className="text-ink-3">not measured</span>
                        {cell.from !== undefined && (
                          <Link to="/shelf/configure" search={{ from: cell.from }} className="link small block">
                            make this configuration and measure it
                          </Link>
                        )}
                      </>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <ExportMenu
        quiet
        name="two factors"
        draw={(paint, font) => {
          const drawn = drawFactors(grid)!;
          return figurePage(drawn, drawn.caption, paint, font);
        }}
        csv={() => factorsCsv(grid)}
      />
      <Dropped dropped={grid.dropped} />
      <p className="small mt-1">{grid.metric ? 'Ratios' : 'Overall ratios'} are to the first cell, better above 1.</p>
      {grid.blocks.map((b) => (
        <section
          key={[b.firstFrom, b.firstTo, b.secondFrom, b.secondTo].join('|')}
          className="mt-5 border-l-2 border-gold pl-4"
        >
          <h2 className="text-[15px]">
            {b.firstFrom} or {b.firstTo}, {b.secondFrom} or {b.secondTo}
          </h2>
          {(
            [
              ['By itself', b.first],
              ['By itself', b.second],
              ['Together', b.interaction],
            ] as const
          ).map(([what, effect], i) => (
            <p key={i} className="mt-1 flex items-baseline gap-2">
              <span className="small w-16 shrink-0">{b.turns && i < 2 ? 'It turns' : what}</span>
              <span>{effect.words}</span>
              <CopyButton text={effect.words} what="the sentence" />
            </p>
          ))}
        </section>
      ))}
      {grid.blocks.length > 0 && grid.days && <p className="small mt-1">Intervals: {grid.days}.</p>}
      {grid.blocks.length === 0 && (
        <p className="mt-4 text-ink-2">Effects need four cells that were measured: two ways of each factor.</p>
      )}
    </div>
  );
}

const SHOWN_DROPPED = 4;

/** Tests that are not in the grid because a cell has none, with what happened there. */
function Dropped({ dropped }: { dropped: Grid['dropped'] }) {
  const [open, setOpen] = useState(false);
  if (dropped.length === 0) return null;
  const failed = dropped.filter((d) => d.failed).length;
  const shown = open ? dropped : dropped.slice(0, Math.max(SHOWN_DROPPED, failed));
  return (
    <section className="mt-3">
      <h2 className="text-[15px]">
        {dropped.length} {dropped.length === 1 ? 'test is' : 'tests are'} not in this grid
      </h2>
      {shown.map((d) => (
        <p key={`${d.suite} ${d.test}`} className={`small mt-0.5 ${d.failed ? 'text-plum' : ''}`}>
          {d.test}: {d.why.join(', ')}.
        </p>
      ))}
      {shown.length < dropped.length && (
        <button className="small link" onClick={() => setOpen(true)}>
          {dropped.length - shown.length} more
        </button>
      )}
    </section>
  );
}

function factorsCsv(grid: Grid): string {
  const cells = grid.rows.flatMap((row) =>
    row.cells.map((cell, i) => [
      row.level,
      grid.second?.levels[i],
      cell.configuration && named(cell.configuration),
      cell.value,
      cell.ratio,
    ]),
  );
  const effects = grid.blocks.flatMap((b) =>
    (
      [
        ['first', b.first],
        ['second', b.second],
        ['together', b.interaction],
      ] as const
    ).map(([what, e]) => [
      what,
      `${b.firstFrom} → ${b.firstTo}`,
      `${b.secondFrom} → ${b.secondTo}`,
      '',
      e.ratio,
      e.low,
      e.high,
      e.words,
    ]),
  );
  return table([
    [
      grid.first?.label,
      grid.second?.label,
      'configuration',
      grid.metric ? `${grid.metric.test} in ${grid.metric.unit}` : 'overall',
      'ratio to the first cell',
    ],
    ...cells,
    ['effect', 'of the first', 'of the second', '', 'ratio', '95 % low', '95 % high', 'in words'],
    ...effects,
    ...grid.dropped.map((d) => ['not in the grid', d.test, d.suite, d.why.join('; ')]),
  ]);
}
