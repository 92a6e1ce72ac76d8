import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState, type CSSProperties } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { LateRunsOf } from '../bench/LateRuns.tsx';
import * as format from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import type { LEDGER_ORDERS } from '../shell/search-params.ts';
import { tableActions } from '../shell/table-store.ts';
import { ColumnsChoice } from '../ui/ColumnsChoice.tsx';
import { useHiddenColumns } from '../ui/hidden-columns.ts';
import { Pager } from '../ui/Pager.tsx';
import { rememberRow, rowToReturnTo } from '../ui/return-row.ts';
import { SelectionBar } from '../ui/SelectionBar.tsx';
import { nextSorting, SortButton, type Sorting } from '../ui/SortHeader.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { useSelection } from '../ui/use-selection.ts';
import { BulkAside } from './BulkAside.tsx';
import { LedgerSentence } from './LedgerSentence.tsx';
import { ReadingPanel } from './ReadingPanel.tsx';
import { addressOf, SavedViews } from './SavedViews.tsx';
import { LedgerLine } from './LedgerLine.tsx';

type Row = Schemas['LedgerRow'];
const route = getRouteApi('/ledger');
const PAGE = 50;
/** As many as an address holds. */
const MOST_PICKED = 200;
type Order = (typeof LEDGER_ORDERS)[number];
/** Widths on paper are shares: an upright sheet has no room for the pixels of the screen. */
const HEADINGS: readonly {
  by: Order;
  words: string;
  width: string;
  onPaper: number;
  right?: boolean;
  fallingFirst?: boolean;
}[] = [
  { by: 'MODEL', words: 'Model and configuration', width: 'minmax(0,1.25fr)', onPaper: 2.4 },
  { by: 'TEST', words: 'Test', width: 'minmax(0,1.25fr)', onPaper: 1.6 },
  { by: 'RUN', words: 'Run', width: '84px', onPaper: 0.5 },
  { by: 'PERSON', words: 'Person', width: '76px', onPaper: 0.7 },
  { by: 'VALUE', words: 'Value', width: '120px', onPaper: 1.3, right: true, fallingFirst: true },
  { by: 'STATE', words: 'State', width: 'minmax(0,1fr)', onPaper: 1.1 },
  { by: 'TIME', words: 'When', width: '140px', onPaper: 1.2, right: true, fallingFirst: true },
];
const COLUMNS = HEADINGS.filter((h) => ['RUN', 'PERSON', 'STATE', 'TIME'].includes(h.by)).map((h) => ({
  key: h.by,
  label: h.words,
}));
const keyOf = (row: Row) => `${row.runId}-${row.readingId ?? 0}`;

function template(hidden: readonly string[]): CSSProperties {
  const columns = HEADINGS.filter((h) => !hidden.includes(h.by));
  return {
    '--columns': columns.map((h) => h.width).join(' '),
    '--on-paper': columns.map((h) => `minmax(0,${h.onPaper}fr)`).join(' '),
  } as CSSProperties;
}

/** Every reading ever taken, and every run that gave none, newest first. */
export function LedgerView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const [at, setAt] = useState<number | string | null>(rowToReturnTo);
  const [doing, setDoing] = useState<'aside' | 'picked' | null>(null);
  const page = (search.page ?? 1) - 1;
  const say = (change: Partial<typeof search>) =>
    void navigate({ search: { ...search, page: undefined, reading: undefined, ...change } });
  const { reading, page: _, sort: by, falling, ...filter } = search;

  const rows = useQuery({
    queryKey: ['ledger', filter, by, falling, page],
    queryFn: ({ signal }) =>
      value(
        api.GET('/api/ledger', {
          params: {
            query: {
              ...filter,
              ...(by ? { sort: by } : {}),
              ...(falling !== undefined ? { falling } : {}),
              page,
              size: PAGE,
            },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const list = rows.data?.rows ?? [];
  const active = Math.max(
    0,
    list.findIndex((r) => keyOf(r) === at),
  );
  const setActive = (index: number) => {
    const row = list[index];
    if (!row) return;
    rememberRow(keyOf(row));
    setAt(keyOf(row));
  };
  const selection = useSelection(list, keyOf);
  const hidden = useHiddenColumns('ledger');
  const sorting: Sorting<Order> = { by: search.sort ?? 'TIME', falling: search.falling ?? true };
  const sort = (by: Order, fallingFirst = false) => {
    const next = nextSorting(sorting, by, fallingFirst);
    say({
      sort: next.by === 'TIME' ? undefined : next.by,
      falling: next.by === 'TIME' && next.falling ? undefined : next.falling,
    });
  };
  const picked = selection.rows.flatMap((r) => (r.readingId === undefined ? [] : [r.readingId])).slice(0, MOST_PICKED);

  const focus = (next: number) => {
    if (next < 0 || next >= list.length) return;
    setActive(next);
    document.querySelector<HTMLElement>(`[data-line="${next}"]`)?.focus();
  };
  useKeys([
    { key: 'ArrowDown', does: 'Next line', run: () => focus(active + 1) },
    { key: 'ArrowUp', does: 'Line before', run: () => focus(active - 1) },
    {
      key: 'x',
      does: 'Select the line, or not',
      run: () => {
        const row = list[active];
        if (row) selection.toggle(row);
      },
    },
  ]);

  const anything = Object.values(filter).some((v) => v !== undefined);
  return (
    <>
      <Opening title="Ledger" sentence={<LedgerSentence search={search} say={say} total={rows.data?.total} />}>
        <ColumnsChoice list="ledger" columns={COLUMNS} />
        <SavedViews search={filter} />
        <a className="button" href={`/api/ledger/csv?${addressOf(filter)}`} download>
          Export CSV
        </a>
        <Link to="/ledger/import" data-changes className="button button-main">
          Import
        </Link>
      </Opening>
      {doing === 'aside' && <BulkAside filter={filter} onDone={() => setDoing(null)} />}
      {doing === 'picked' && (
        <BulkAside
          filter={{ readings: picked }}
          onDone={() => {
            setDoing(null);
            selection.clear();
          }}
        />
      )}
      {search.session !== undefined && <LateRunsOf session={search.session} />}
      <Ready query={rows} what="the ledger">
        {(found) =>
          found.total === 0 ? (
            anything ? (
              <Empty title="No matching readings">
                <button className="link" onClick={() => void navigate({ search: {} })}>
                  Reset filters
                </button>
              </Empty>
            ) : (
              <Empty title="Nothing was measured yet">
                Bring a device to the bench: press <kbd>g</kbd> <kbd>b</kbd>.
              </Empty>
            )
          ) : (
            <>
              <div role="table" aria-label="Ledger" aria-rowcount={found.total + 1} style={template(hidden)}>
                <div
                  role="row"
                  className="small sticky -top-4 z-10 hidden border-b border-hair bg-paper py-1 lg:grid lg:grid-cols-(--columns) lg:gap-x-4 print:grid print:grid-cols-(--on-paper) print:gap-x-4"
                >
                  {HEADINGS.filter((h) => !hidden.includes(h.by)).map((h) => (
                    <span
                      key={h.by}
                      role="columnheader"
                      aria-sort={sorting.by !== h.by ? 'none' : sorting.falling ? 'descending' : 'ascending'}
                      className={h.right ? 'text-right' : 'pl-1'}
                    >
                      <SortButton
                        on={sorting.by === h.by}
                        falling={sorting.falling}
                        onClick={() => sort(h.by, h.fallingFirst)}
                      >
                        {h.words}
                      </SortButton>
                    </span>
                  ))}
                </div>
                {found.rows.map((row, i) => (
                  <LedgerLine
                    key={`${row.runId}-${row.readingId ?? 0}`}
                    row={row}
                    index={i}
                    active={i === active}
                    hidden={hidden}
                    selection={selection}
                    onActive={() => setActive(i)}
                    onOpen={() => row.readingId !== undefined && say({ reading: row.readingId, page: search.page })}
                    onSession={() => say({ session: row.sessionId })}
                  />
                ))}
              </div>
              <SelectionBar
                selection={selection}
                what={(n) => `${format.count(n)} ${n === 1 ? 'line' : 'lines'} selected`}
              >
                <button
                  className="button"
                  onClick={() => {
                    tableActions.lay([...new Set(selection.rows.map((r) => r.configurationId))]);
                    selection.clear();
                  }}
                >
                  Put on the table
                </button>
                {picked.length > 0 && (
                  <>
                    <a className="button" href={`/api/ledger/csv?readings=${picked.join(',')}`} download>
                      Export CSV
                    </a>
                    <button data-changes className="button" onClick={() => setDoing('picked')}>
                      Set {format.count(picked.length)} aside
                    </button>
                  </>
                )}
              </SelectionBar>
              <Pager
                {...(sorting.by === 'TIME' && sorting.falling ? { back: 'Newer', on: 'Older' } : {})}
                page={found.page}
                size={found.size}
                total={found.total}
                onPage={(next) => say({ page: next + 1 })}
              />
              <p data-changes className="small mt-3">
                <button
                  className="link"
                  aria-expanded={doing === 'aside'}
                  onClick={() => setDoing(doing === 'aside' ? null : 'aside')}
                >
                  Set all aside
                </button>{' '}
                that this view shows, on every page of it.
              </p>
            </>
          )
        }
      </Ready>
      <ReadingPanel id={reading} onClose={() => void navigate({ search: { ...search, reading: undefined } })} />
    </>
  );
}
