import { useQuery } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { testGroup, type TestGroup, TEST_GROUPS } from '../format/format.ts';
import { takeWords } from '../format/takes.ts';
import type { compareSearch } from '../shell/search-params.ts';
import { useTable } from '../shell/table-store.ts';
import { Choice, Choices } from '../ui/Choice.tsx';
import { SizesChoice } from './SizesChoice.tsx';
import { TAKE_OPTIONS, takeKey, takeOf, USUAL_MATTERS } from './take.ts';

type CompareSearch = ReturnType<typeof compareSearch>;

const MATERIALITIES = [1, 2, 3, 5, 10] as const;

/** The question as a sentence: each of its words is a choice. */
export function CompareSentence({
  search,
  say,
  ids,
  base,
  others,
  nameOf,
  notCounted,
}: {
  search: CompareSearch;
  say: (change: Partial<CompareSearch>) => void;
  ids: number[];
  base: number;
  others: readonly number[];
  nameOf: (id: number) => string;
  /** Sessions that are left out as usual. */
  notCounted: number;
}) {
  const table = useTable();
  const apart = search.take !== undefined && search.baseTake !== undefined && search.take !== search.baseTake;
  const materiality = search.matters ?? USUAL_MATTERS;
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
  const suites = versions.data ?? [];
  const suite = suites.find((v) => v.id === search.suite);
  const scope = search.group ?? (search.suite ? `suite:${search.suite}` : undefined);
  return (
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
      {(search.take !== undefined || notCounted > 0) && (
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
}
