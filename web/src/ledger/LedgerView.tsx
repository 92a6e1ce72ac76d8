import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { MarkSign } from '../chart/Mark.tsx';
import * as format from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { slotOf, useTable } from '../shell/table-store.ts';
import { Pager } from '../ui/Pager.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { BulkAside } from './BulkAside.tsx';
import { ImportPart } from './ImportPart.tsx';
import { LedgerSentence } from './LedgerSentence.tsx';
import { ReadingPanel } from './ReadingPanel.tsx';
import { addressOf, SavedViews } from './SavedViews.tsx';

type Row = Schemas['LedgerRow'];
const route = getRouteApi('/ledger');
const PAGE = 50;
/** Every reading ever taken, and every run that gave none, newest first. */
export function LedgerView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const [active, setActive] = useState(0);
  const [doing, setDoing] = useState<'import' | 'aside' | null>(null);
  const page = (search.page ?? 1) - 1;
  const say = (change: Partial<typeof search>) =>
    void navigate({ search: { ...search, page: undefined, reading: undefined, ...change } });
  const { reading, page: _, ...filter } = search;

  const rows = useQuery({
    queryKey: ['ledger', filter, page],
    queryFn: ({ signal }) =>
      value(api.GET('/api/ledger', { params: { query: { ...filter, page, size: PAGE } }, signal })),
    placeholderData: keepPreviousData,
  });
  const list = rows.data?.rows ?? [];
  const focus = (next: number) => {
    if (next < 0 || next >= list.length) return;
    setActive(next);
    document.querySelector<HTMLElement>(`[data-line="${next}"]`)?.focus();
  };
  useKeys([
    { key: 'ArrowDown', does: 'Next line', run: () => focus(active + 1) },
    { key: 'ArrowUp', does: 'Line before', run: () => focus(active - 1) },
  ]);

  const anything = Object.values(filter).some((v) => v !== undefined);
  return (
    <>
      <Opening title="Ledger" sentence={<LedgerSentence search={search} say={say} total={rows.data?.total} />}>
        <SavedViews search={filter} />
        <button
          className="button"
          aria-expanded={doing === 'aside'}
          onClick={() => setDoing(doing === 'aside' ? null : 'aside')}
        >
          Set all aside
        </button>
        <button
          className="button"
          aria-expanded={doing === 'import'}
          onClick={() => setDoing(doing === 'import' ? null : 'import')}
        >
          Import
        </button>
        <a className="button" href={`/api/ledger/csv?${addressOf(filter)}`} download>
          Export CSV
        </a>
      </Opening>
      {doing === 'import' && <ImportPart onDone={() => setDoing(null)} />}
      {doing === 'aside' && <BulkAside filter={filter} onDone={() => setDoing(null)} />}
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
              <ul aria-label="Ledger">
                {found.rows.map((row, i) => (
                  <LedgerLine
                    key={`${row.runId}-${row.readingId ?? 0}`}
                    row={row}
                    index={i}
                    active={i === active}
                    onActive={() => setActive(i)}
                    onOpen={() => row.readingId !== undefined && say({ reading: row.readingId, page: search.page })}
                    onSession={() => say({ session: row.sessionId })}
                  />
                ))}
              </ul>
              <Pager
                back="Newer"
                on="Older"
                page={found.page}
                size={found.size}
                total={found.total}
                onPage={(next) => say({ page: next + 1 })}
              />
            </>
          )
        }
      </Ready>
      <ReadingPanel id={reading} onClose={() => void navigate({ search: { ...search, reading: undefined } })} />
    </>
  );
}

function LedgerLine({
  row,
  index,
  active,
  onActive,
  onOpen,
  onSession,
}: {
  row: Row;
  index: number;
  active: boolean;
  onActive: () => void;
  onOpen: () => void;
  onSession: () => void;
}) {
  const table = useTable();
  const slot = slotOf(table, row.configurationId);
  const aside = row.asideReason !== undefined;
  return (
    <li className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-hair-2 py-1.5 hover:bg-sheet sm:grid-cols-[minmax(0,1.25fr)_minmax(0,1.25fr)_130px_minmax(0,1.1fr)_150px]">
      <span className="flex min-w-0 items-center gap-1.5">
        {slot !== null && <MarkSign slot={slot} size={13} />}
        <span className="min-w-0">
          <Link
            to="/shelf/configurations/$configurationId"
            params={{ configurationId: String(row.configurationId) }}
            className="block truncate font-semibold hover:underline"
          >
            {row.maker} {row.model}
          </Link>
          <span className="small block truncate">{row.configuration}</span>
        </span>
      </span>
      <span className="order-3 min-w-0 sm:order-none">
        <span className="block truncate">{row.metric ?? row.test}</span>
        <span className="small">
          run {row.runNumber}
          {row.attempt > 1 ? `, attempt ${row.attempt}` : ''}
          {row.person !== undefined && `, ${row.person}`}
        </span>
      </span>
      <span className="text-right">
        {row.readingId !== undefined ? (
          <button
            data-line={index}
            tabIndex={active ? 0 : -1}
            onFocus={onActive}
            onClick={onOpen}
            className={`said text-[15px] font-semibold hover:underline ${aside ? 'text-ink-3 line-through' : ''}`}
          >
            {format.reading(
              row.value!,
              { unit: row.unit, kind: row.kind, choices: row.choices?.split('\n') },
              row.resolution,
            )}
          </button>
        ) : (
          <span
            data-line={index}
            tabIndex={active ? 0 : -1}
            onFocus={onActive}
            className="pill"
            data-tone={row.state === 'FAILED' ? 'bad' : 'off'}
          >
            {format.runState(row.state)}
          </span>
        )}
      </span>
      <span className="small order-4 min-w-0 truncate sm:order-none" title={row.asideReason ?? row.reasonWords}>
        {row.marks.map((m) => (
          <span key={m.kind} className="pill mr-1.5" data-tone="wait" title={format.markReason(m)}>
            {format.mark(m.kind)}
          </span>
        ))}
        {aside ? <>set aside: {row.asideReason}</> : (row.reasonWords ?? (row.reason ? format.reason(row.reason) : ''))}
      </span>
      <button
        className="said small order-5 hidden text-right hover:underline sm:order-none sm:block"
        onClick={onSession}
        title="This session only"
      >
        {format.moment(row.finishedAt)}
      </button>
    </li>
  );
}
