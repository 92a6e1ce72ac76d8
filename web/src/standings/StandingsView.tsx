import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi } from '@tanstack/react-router';
import { api, value, Problem, type Schemas } from '../api/client.ts';
import { classes, DEVICE_CLASSES, testGroup, type DeviceClass, type TestGroup } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { useTable } from '../shell/table-store.ts';
import { Choice, Choices } from '../ui/Choice.tsx';
import { Empty, Loading, Trouble } from '../ui/states.tsx';
import { StandingsTable } from './StandingsTable.tsx';

export type Standings = Schemas['Standings'];
const route = getRouteApi('/standings');

/** Where a model lands among everything tested. */
export function StandingsView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const table = useTable();
  // The sentence wins; where it names no base, the table's base is taken.
  const base = search.base ?? table.base ?? undefined;
  const chosen = search.classes ?? [];
  const say = (change: Partial<typeof search>) => void navigate({ search: { ...search, ...change } });

  const purposes = useQuery({ queryKey: ['purposes'], queryFn: () => value(api.GET('/api/purposes')), staleTime: Infinity });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')), staleTime: 60_000 });
  const standings = useQuery({
    queryKey: ['standings', chosen, search.purpose, search.metric, base],
    queryFn: ({ signal }) => value(api.GET('/api/standings', {
      params: { query: { deviceClass: chosen, ...(search.purpose ? { purpose: search.purpose } : {}), ...(search.metric ? { metric: search.metric } : {}), ...(base ? { base } : {}) } },
      signal,
    })),
    placeholderData: keepPreviousData,
  });

  const metrics = tests.data?.flatMap((test) => test.metrics.filter((m) => m.scale === 'RATIO').map((m) => ({ ...m, suiteName: `${test.suite} ${test.version}` }))) ?? [];
  const data = standings.data;
  const oneTest = metrics.find((m) => m.id === search.metric);

  const sentence = (
    <>
      Ranking{' '}
      <Choices name="Class of device" options={DEVICE_CLASSES.map((c) => ({ value: c, label: c.toLowerCase() }))} values={chosen}
        onChoose={(next: DeviceClass[]) => say({ classes: next.length > 0 ? next : undefined })}>{classes(chosen)}</Choices>
      {oneTest ? ' by ' : ' for '}
      {!oneTest && (
        <>
          <Choice name="Purpose" options={purposes.data?.map((p) => ({ value: p.id, label: p.name, detail: weightsInWords(p.weights) })) ?? []}
            value={search.purpose ?? purposes.data?.[0]?.id} onChoose={(purpose) => say({ purpose })}>
            {purposes.data?.find((p) => p.id === search.purpose)?.name ?? purposes.data?.[0]?.name ?? '…'}
          </Choice>
          , over{' '}
        </>
      )}
      <Choice name="Test" options={[{ value: undefined as number | undefined, label: 'every test', detail: 'weighted for the purpose' }, ...metrics.map((m) => ({ value: m.id as number | undefined, label: m.test, detail: `${testGroup(m.group)} · ${m.suiteName} · ${m.unit}` }))]}
        value={search.metric} onChoose={(metric) => say({ metric })}>
        {oneTest ? oneTest.test : 'every test'}
      </Choice>
      , against{' '}
      <Choice name="Base" options={data?.rows.filter((r) => r.status !== 'NOT_LINKED').map((r) => ({ value: r.configuration.id, label: `${r.configuration.maker} ${r.configuration.model}`, detail: r.configuration.name })) ?? []}
        value={data?.base.id} onChoose={(id) => say({ base: id })}>
        {data ? `${data.base.maker} ${data.base.model}` : '…'}
      </Choice>
      {' = 100.'}
    </>
  );

  return (
    <div className="flex h-full min-h-[420px] flex-col">
      <Opening title="Standings" sentence={sentence} />
      {standings.isPending ? <Loading what="the standings" />
        : standings.isError ? (
          standings.error instanceof Problem && standings.error.code === 'nothing-tested'
            ? <Empty title="Nothing to rank yet">{standings.error.message} Press <kbd>g</kbd> <kbd>b</kbd> for the bench.</Empty>
            : <Trouble error={standings.error} again={() => void standings.refetch()} />
        ) : (
          <>
            {data!.baseNote && <p role="status" className="mb-2 border-l-2 border-gold pl-3">{data!.baseNote}</p>}
            <StandingsTable standings={data!} purpose={search.purpose} />
          </>
        )}
    </div>
  );
}

function weightsInWords(weights: Record<string, number>): string {
  const entries = Object.entries(weights).filter(([, w]) => w > 0);
  if (new Set(entries.map(([, w]) => w)).size <= 1) return 'the same weight for each group of tests';
  return entries.map(([group, w]) => `${testGroup(group as TestGroup)} ${w}`).join(' · ');
}
