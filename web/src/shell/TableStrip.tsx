import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { MarkSign } from '../chart/Mark.tsx';
import { useKeys } from './keys.ts';
import { tableActions, useTable } from './table-store.ts';

/** The table: the configurations that every view follows, with the same mark everywhere. */
export function TableStrip() {
  const table = useTable();
  const ids = table.entries.map((e) => e.id);
  const names = useQuery({
    queryKey: ['configurations', ids],
    queryFn: () => value(api.GET('/api/configurations', { params: { query: { ids } } })),
    enabled: ids.length > 0,
    placeholderData: keepPreviousData,
  });
  useKeys([
    ...table.entries.map((entry, i) => ({
      key: String(i + 1),
      does: `Light up number ${i + 1} on the table`,
      run: () => tableActions.light(table.lit === entry.id ? null : entry.id),
    })),
    ...(table.lit === null
      ? []
      : [
          { key: 'b', does: 'Make the lit one the base', run: () => tableActions.makeBase(table.lit!) },
          { key: 'Delete', does: 'Remove the lit one from the table', run: () => tableActions.take(table.lit!) },
        ]),
  ]);

  return (
    <footer
      aria-label="The table"
      className={`strip flex items-center gap-2.5 overflow-x-auto bg-strip px-5 text-strip-ink ${table.entries.length === 0 ? 'py-1' : 'min-h-16 py-2 max-sm:min-h-9 max-sm:py-1'}`}
    >
      {table.entries.length === 0 ? (
        <p className="truncate text-[13px] text-strip-ink-2">
          On the table: nothing yet.{' '}
          <span className="pointer-coarse:hidden">
            Press <kbd className="strip-kbd">Enter</kbd> or + on a row of the standings.
          </span>
          <span className="hidden pointer-coarse:inline">Press + on a row of the standings.</span>
        </p>
      ) : (
        <>
          <span className="text-[12.5px] whitespace-nowrap text-strip-ink-2">On the table</span>
          {table.entries.map((entry, i) => {
            const c = names.data?.find((row) => row.id === entry.id);
            const lit = table.lit === entry.id;
            const isBase = table.base === entry.id;
            return (
              <div
                key={entry.id}
                data-lit={lit}
                data-base={isBase}
                className="flex max-w-[240px] shrink-0 items-center gap-2 rounded-[9px] bg-strip-2 px-3 py-1.5 max-sm:py-0.5 outline-[1.5px] outline-transparent data-[base=true]:outline-strip-gold data-[lit=true]:bg-strip-hair"
              >
                <button
                  className="flex min-w-0 items-center gap-2 text-left"
                  aria-pressed={lit}
                  onClick={() => tableActions.light(lit ? null : entry.id)}
                >
                  <MarkSign slot={entry.slot} />
                  <span className="min-w-0 leading-tight max-sm:truncate">
                    <span className="truncate sm:block">
                      {c ? `${c.maker} ${c.model}` : names.isPending ? '…' : 'No longer on the shelf'}
                    </span>{' '}
                    <span className="truncate text-[12px] text-strip-ink-2 sm:block">{c?.name}</span>
                  </span>
                </button>
                {isBase ? (
                  <span className="text-[11.5px] font-semibold text-strip-gold">base</span>
                ) : (
                  <kbd className="strip-kbd">{i + 1}</kbd>
                )}
                {lit && (
                  <span className="flex flex-col text-[11.5px] leading-tight">
                    {!isBase && (
                      <button className="underline" onClick={() => tableActions.makeBase(entry.id)}>
                        base
                      </button>
                    )}
                    <button
                      className="underline"
                      onClick={() => tableActions.take(entry.id)}
                      aria-label={`Remove ${c?.model ?? 'it'} from the table`}
                    >
                      remove
                    </button>
                  </span>
                )}
              </div>
            );
          })}
          {table.refused && (
            <span role="alert" className="flex shrink-0 items-center gap-2 text-[13px] text-strip-gold">
              The table holds eight. Remove one first.
              <button className="underline" onClick={tableActions.seen}>
                Close
              </button>
            </span>
          )}
          <span className="ml-auto hidden text-[12.5px] whitespace-nowrap text-strip-ink-2 lg:block">
            <kbd className="strip-kbd">1</kbd>–<kbd className="strip-kbd">8</kbd> light up,{' '}
            <kbd className="strip-kbd">b</kbd> base, <kbd className="strip-kbd">Delete</kbd> remove
          </span>
        </>
      )}
    </footer>
  );
}
