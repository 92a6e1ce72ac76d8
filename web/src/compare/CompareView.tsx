import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { COMPARE_ORDERS } from '../shell/search-params.ts';
import { tableActions, useTable } from '../shell/table-store.ts';
import { Choice } from '../ui/Choice.tsx';
import { Loading, Trouble } from '../ui/states.tsx';
import { UnfinishedNote } from '../ui/UnfinishedNote.tsx';
import { LeftOutHere } from './AreasPart.tsx';
import { ComparedTable } from './line/ComparedTable.tsx';
import { ComparePairs } from './ComparePairs.tsx';
import { FactorsPart } from './FactorsPart.tsx';
import { HowRepeatable } from './HowRepeatable.tsx';
import { MissingRuns } from './MissingRuns.tsx';
import { sections, type Order } from './line/order.ts';
import { toggled } from '../format/parts.ts';
import { SidePanel } from './SidePanel.tsx';
import { ExportTexts } from './ExportTexts.tsx';
import { WithAndWithout } from './WithAndWithout.tsx';
import { TotalsPart } from './TotalsPart.tsx';
import { useSizes } from './SizesChoice.tsx';
import { useWords, type Question } from './line/words.ts';
import { aboutThese } from '../writeup/question/begin.ts';
import { WriteUpButton } from '../writeup/question/WriteUpButton.tsx';
import { named } from '../format/named.ts';
import { CompareSentence } from './CompareSentence.tsx';
import { byOf, USUAL_MATTERS } from './take.ts';

const route = getRouteApi('/compare');

const ORDER_WORDS: Record<Order, string> = { group: 'by group', size: 'by size of effect', certainty: 'by certainty' };

/** Is it better, by how much, is that real, and why. */
export function CompareView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const table = useTable();
  const [side, setSide] = useState(0);
  const ids = search.ids ?? table.entries.map((e) => e.id);
  const base =
    search.base !== undefined && ids.includes(search.base)
      ? search.base
      : table.base !== null && ids.includes(table.base)
        ? table.base
        : ids[0];
  // Under two conditions one configuration is held against itself.
  const apart = search.take !== undefined && search.baseTake !== undefined && search.take !== search.baseTake;
  const others = apart && ids.length === 1 ? ids : ids.filter((id) => id !== base);
  const say = (change: Partial<typeof search>) => void navigate({ search: { ...search, ...change } });
  const leaveOut = (key: string) => say({ without: toggled(search.without, key) });
  const materiality = search.matters ?? USUAL_MATTERS;
  const { sizes } = useSizes(search.sizes);
  const order = search.order ?? 'group';

  const purposes = useQuery({
    queryKey: ['purposes'],
    queryFn: () => value(api.GET('/api/purposes')),
    staleTime: Infinity,
  });
  const question: Question = {
    base: base ?? 0,
    with: others,
    materiality,
    ...(search.purpose ? { purpose: search.purpose } : {}),
    ...(search.group ? { group: search.group } : {}),
    ...(search.suite ? { suite: search.suite } : {}),
    ...(search.per ? { per: search.per } : {}),
    ...(search.without ? { without: search.without } : {}),
    ...(search.take ? { take: search.take } : {}),
    ...(search.baseTake ? { baseTake: search.baseTake } : {}),
  };
  const comparison = useQuery({
    queryKey: ['comparison', question],
    queryFn: ({ signal }) => value(api.GET('/api/compare', { params: { query: question }, signal })),
    enabled: others.length > 0,
    placeholderData: keepPreviousData,
  });
  const words = useWords(question, comparison.isSuccess && !comparison.isPlaceholderData && !search.factors);
  const swap = () => {
    const next = others[Math.min(side, others.length - 1)];
    if (next === undefined) return;
    // Where the address names no base, the table's base is what is exchanged.
    if (search.base === undefined && table.entries.some((e) => e.id === next)) tableActions.makeBase(next);
    else say({ base: next });
    setSide(0);
  };
  useKeys([
    { key: 'x', does: 'Exchange base and the other', run: swap },
    {
      key: 'm',
      does: 'Say what difference matters',
      run: () => document.querySelector<HTMLElement>('[data-part="matters"] button')?.click(),
    },
    {
      key: 'o',
      does: 'Another order of the lines',
      run: () => say({ order: COMPARE_ORDERS[(COMPARE_ORDERS.indexOf(order) + 1) % COMPARE_ORDERS.length] }),
    },
  ]);

  if (others.length === 0 || base === undefined) {
    return (
      <>
        <Opening title="Compare" sentence="Is it better, by how much, is that real, and why." />
        <ComparePairs />
        {ids.length === 1 && <WithAndWithout configuration={ids[0]!} />}
      </>
    );
  }
  const data = comparison.data;
  const shownSide = data ? Math.min(side, data.sides.length - 1) : 0;
  const all = data ? [data.base, ...data.sides.map((s) => s.configuration)] : [];
  const nameOf = (id: number) => {
    const c = all.find((n) => n.id === id);
    return c ? named(c) : '…';
  };
  const factorSentence = (
    <>
      Two facts at once, over {ids.length} configurations, weighed for{' '}
      {purposes.data?.find((p) => p.id === search.purpose)?.name ?? purposes.data?.[0]?.name ?? '…'}.
    </>
  );
  const parts = data ? sections(data.rows, order, shownSide) : [];
  return (
    <div className="flex flex-col md:h-full md:min-h-[460px]">
      <Opening
        title="Compare"
        sentence={
          search.factors ? (
            factorSentence
          ) : (
            <CompareSentence
              search={search}
              say={say}
              ids={ids}
              base={base}
              others={others}
              nameOf={nameOf}
              notCounted={data?.notCounted ?? 0}
            />
          )
        }
      >
        {ids.length > 2 && (
          <button
            className="button"
            aria-pressed={search.factors === true}
            onClick={() => say({ factors: search.factors ? undefined : true })}
          >
            {search.factors ? 'Test by test' : 'Two factors'}
          </button>
        )}
        {data && all.every((c) => c.modelId === data.base.modelId) && (
          <Link to="/trends" search={{ model: data.base.modelId, between: all.map((c) => c.id) }} className="button">
            As a trend
          </Link>
        )}
        {data && (
          <Link
            to="/standings"
            search={{
              form: 'charts',
              only: all.map((c) => c.id),
              purpose: search.purpose,
              group: search.group,
              suite: search.suite,
              take: search.take,
              without: search.without,
            }}
            className="button"
          >
            Charts
          </Link>
        )}
        {data && (
          <WriteUpButton
            beginning={() =>
              aboutThese(
                data.sides.map((s) => s.configuration),
                data.base,
                byOf(question),
              )
            }
          />
        )}
        {data && !search.factors && (
          <ExportTexts comparison={data} parts={parts} side={shownSide} by={byOf(question)} />
        )}
      </Opening>
      {search.factors ? (
        <div className="min-h-0 flex-1 overflow-y-auto">
          <FactorsPart
            ids={ids}
            purpose={search.purpose}
            factors={{ first: search.first, second: search.second, metric: search.cells }}
            onChoose={(next) => say({ first: next.first, second: next.second, cells: next.metric })}
          />
        </div>
      ) : comparison.isPending ? (
        <Loading what="the comparison" />
      ) : comparison.isError ? (
        <Trouble
          error={comparison.error}
          again={() => (search.per === undefined ? void comparison.refetch() : say({ per: undefined }))}
        />
      ) : (
        <div className="flex min-h-0 flex-1 flex-col gap-6 md:flex-row">
          <aside aria-label="What is beside the lines" className="w-full shrink-0 overflow-y-auto md:w-[282px]">
            {data!.sides.length > 1 && (
              <p className="mb-2 font-semibold">{nameOf(data!.sides[shownSide]!.configuration.id)}</p>
            )}
            {data!.per && (
              <p role="note" className="mb-3 border-l-2 border-gold pl-3">
                Every score is divided: per {data!.per.label}.
              </p>
            )}
            <LeftOutHere without={search.without} rows={data!.rows} onTakeIn={leaveOut} />
            <SidePanel
              comparison={data!}
              side={data!.sides[shownSide]!}
              sizes={sizes}
              purpose={data!.purpose}
              onLeaveOut={leaveOut}
            />
            <MissingRuns key={`${base}-${others.join()}`} comparison={data!} />
            <TotalsPart base={base} other={data!.sides[shownSide]!.configuration.id} />
          </aside>
          <div className="flex min-h-0 min-w-0 flex-1 flex-col">
            <p className="small mb-1 text-right">
              Lines{' '}
              <Choice
                name="Order"
                value={order}
                options={COMPARE_ORDERS.map((o) => ({ value: o, label: ORDER_WORDS[o] }))}
                onChoose={(next) => say({ order: next === 'group' ? undefined : next })}
              >
                {ORDER_WORDS[order]}
              </Choice>
            </p>
            <UnfinishedNote of={ids} />
            <HowRepeatable comparison={data!} />
            <ComparedTable
              comparison={data!}
              words={words}
              parts={parts}
              side={shownSide}
              sizes={sizes}
              onSide={setSide}
              onSort={() => say({ order: order === 'size' ? undefined : 'size' })}
              open={search.open}
              onOpen={(open) => say({ open })}
            />
          </div>
        </div>
      )}
    </div>
  );
}
