import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { TEST_GROUPS, testGroup, type TestGroup } from '../format/format.ts';
import { CONDITIONS, TAKES, takeWords, type Take } from '../format/takes.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { COMPARE_ORDERS } from '../shell/search-params.ts';
import { tableActions, useTable } from '../shell/table-store.ts';
import { Choice, Choices } from '../ui/Choice.tsx';
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
import { SizesChoice, useSizes } from './SizesChoice.tsx';
import { useWords, type Question } from './line/words.ts';
import type { ComparedBy } from '../writeup/question/asked.ts';
import { aboutThese } from '../writeup/question/begin.ts';
import { WriteUpButton } from '../writeup/question/WriteUpButton.tsx';
import { named } from '../format/named.ts';

const route = getRouteApi('/compare');
const USUAL_MATTERS = 3;
const MATERIALITIES = [1, 2, 3, 5, 10] as const;
const ORDER_WORDS: Record<Order, string> = { group: 'by group', size: 'by size of effect', certainty: 'by certainty' };

/** Which sessions are taken: of all alike, or of the others under a condition and of the base as usual. */
const TAKE_OPTIONS = [
  ...TAKES.map((t) => ({ value: takeKey(t, undefined), label: takeWords(t), detail: '' })),
  ...CONDITIONS.map((t) => ({ value: takeKey(t, 'USUAL'), label: takeWords(t), detail: 'the base in usual sessions' })),
];

function takeKey(take: Take | undefined, baseTake: Take | undefined): string {
  return `${take ?? 'USUAL'} ${baseTake ?? ''}`;
}

function takeOf(key: string): { take: Take | undefined; baseTake: Take | undefined } {
  const [take, baseTake] = key.split(' ') as [Take, Take | ''];
  return { take: take === 'USUAL' ? undefined : take, baseTake: baseTake === '' ? undefined : baseTake };
}

/** What is asked beside who is compared; nothing where all of it is the usual. */
function byOf({ base: _base, with: _with, materiality, ...rest }: Question): ComparedBy | undefined {
  const by = { ...rest, ...(materiality === USUAL_MATTERS ? {} : { materiality }) };
  return Object.keys(by).length > 0 ? by : undefined;
}

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
  const versions = useQuery({
    queryKey: ['suite-versions'],
    queryFn: () => value(api.GET('/api/suite-versions')),
    staleTime: 60_000,
  });
  const quantities = useQuery({
    queryKey: ['quantities', ids],
    queryFn: () => value(api.GET('/api/compare/quantities', { params: { query: { ids } } })),
    enabled: others.length > 0,
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
  const suites = versions.data ?? [];
  const suite = suites.find((v) => v.id === search.suite);
  const scope = search.group ?? (search.suite ? `suite:${search.suite}` : undefined);
  const sentence = (
    <>
      How {others.length === 1 ? 'does' : 'do'}{' '}
      <Choices
        name="What is compared"
        values={others}
        onChoose={(next) => {
          if (next.length > 0) say({ ids: [base, ...next], base });
        }}
        options={[...new Set([...ids, ...table.entries.map((e) => e.id)])]
          .filter((id) => id !== base)
          .map((id) => ({ value: id, label: nameOf(id) === '…' ? `configuration ${id}` : nameOf(id) }))}
      >
        {others.length === 1 ? nameOf(others[0]!) : `${others.length} configurations`}
      </Choices>{' '}
      differ from base{' '}
      <Choice
        name="Base"
        value={base}
        options={ids.map((id) => ({ value: id, label: nameOf(id) }))}
        onChoose={(next) => say({ ids, base: next })}
      >
        {nameOf(base)}
      </Choice>{' '}
      on{' '}
      <Choice
        name="Tests"
        value={scope}
        options={[
          { value: undefined as string | undefined, label: 'every test both ran' },
          ...TEST_GROUPS.map((g) => ({ value: g, label: `${testGroup(g)} tests` })),
          ...suites.map((v) => ({
            value: `suite:${v.id}` as string | undefined,
            label: `${v.suite} ${v.version}`,
            detail: `${v.tests} tests`,
          })),
        ]}
        onChoose={(next) =>
          say({
            group: next === undefined || next.startsWith('suite:') ? undefined : (next as TestGroup),
            suite: next?.startsWith('suite:') ? Number(next.slice(6)) : undefined,
          })
        }
      >
        {search.group
          ? `${testGroup(search.group)} tests`
          : suite
            ? `${suite.suite} ${suite.version}`
            : 'every test both ran'}
      </Choice>
      , weighed for{' '}
      <Choice
        name="Purpose"
        value={search.purpose ?? purposes.data?.[0]?.id}
        options={purposes.data?.map((p) => ({ value: p.id, label: p.name })) ?? []}
        onChoose={(purpose) => say({ purpose })}
      >
        {purposes.data?.find((p) => p.id === search.purpose)?.name ?? purposes.data?.[0]?.name ?? '…'}
      </Choice>{' '}
      where{' '}
      <span data-part="matters">
        <Choice
          name="What matters"
          value={materiality}
          options={MATERIALITIES.map((m) => ({
            value: m,
            label: `${m} %`,
            detail: m === 3 ? 'the usual' : '',
          }))}
          onChoose={(matters) => say({ matters: matters === 3 ? undefined : matters })}
        >{`${materiality} %`}</Choice>
      </span>{' '}
      matters, sizes <SizesChoice asked={search.sizes} onChoose={(next) => say({ sizes: next })} />
      {(search.take !== undefined || (data?.notCounted ?? 0) > 0) && (
        <>
          {', '}
          <Choice
            name="Sessions"
            value={takeKey(search.take, search.baseTake)}
            options={TAKE_OPTIONS}
            onChoose={(next) => say(takeOf(next))}
          >
            {`${takeWords(search.take ?? 'USUAL')}${apart ? ', the base as usual' : ''}`}
          </Choice>
        </>
      )}
      {(search.per !== undefined || (quantities.data?.length ?? 0) > 0) && (
        <span className="inline-block">
          {', '}
          <Choice
            name="Divided by"
            value={search.per}
            options={[
              { value: undefined as string | undefined, label: 'as measured' },
              ...(quantities.data ?? []).map((q) => ({ value: q.key, label: `per ${q.label}` })),
            ]}
            onChoose={(per) => say({ per })}
          >
            {search.per === undefined
              ? 'as measured'
              : `per ${quantities.data?.find((q) => q.key === search.per)?.label ?? search.per}`}
          </Choice>
          ?
        </span>
      )}
      {search.per === undefined && (quantities.data?.length ?? 0) === 0 && '?'}
    </>
  );
  const factorSentence = (
    <>
      Two facts at once, over {ids.length} configurations, weighed for{' '}
      {purposes.data?.find((p) => p.id === search.purpose)?.name ?? purposes.data?.[0]?.name ?? '…'}.
    </>
  );
  const parts = data ? sections(data.rows, order, shownSide) : [];
  return (
    <div className="flex flex-col md:h-full md:min-h-[460px]">
      <Opening title="Compare" sentence={search.factors ? factorSentence : sentence}>
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
