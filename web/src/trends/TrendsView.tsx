import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, Problem, value } from '../api/client.ts';
import { number, TEST_GROUPS, testGroup } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { TREND_FORMS, type TrendsSearch } from '../shell/search-params.ts';
import { Choice } from '../ui/Choice.tsx';
import { Empty, Loading, Ready, Trouble } from '../ui/states.tsx';
import { TrendShown } from './TrendShown.tsx';

const route = getRouteApi('/trends');
const FORM_WORDS = { plot: 'One plot', panels: 'A panel a test', table: 'Table' } as const;
const MATTERS = [1, 2, 3, 5, 10];
const SHOWN = 200;

/** The same device along a fact: which way it goes, where it jumped, and what else changed there. */
export function TrendsView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const say = (change: Partial<TrendsSearch>) => void navigate({ search: { ...search, ...change } });
  const models = useQuery({
    queryKey: ['models', 'measured'],
    queryFn: () =>
      value(api.GET('/api/models', { params: { query: { size: SHOWN, sort: 'CONFIGURATIONS', falling: true } } })),
    staleTime: 30_000,
  });
  const model = useQuery({
    queryKey: ['model', search.model],
    queryFn: () => value(api.GET('/api/models/{id}', { params: { path: { id: search.model! } } })),
    enabled: search.model !== undefined,
  });
  const purposes = useQuery({ queryKey: ['purposes'], queryFn: () => value(api.GET('/api/purposes')) });
  const trends = useQuery({
    queryKey: [
      'trends',
      search.model,
      search.unit,
      search.along,
      search.purpose,
      search.group,
      search.suite,
      search.matters,
      search.without,
    ],
    queryFn: ({ signal }) =>
      value(
        api.GET('/api/trends', {
          params: {
            query: {
              model: search.model!,
              ...(search.unit ? { unit: search.unit } : {}),
              ...(search.along ? { along: search.along } : {}),
              ...(search.purpose ? { purpose: search.purpose } : {}),
              ...(search.group ? { group: search.group } : {}),
              ...(search.suite ? { suite: search.suite } : {}),
              ...(search.matters ? { matters: search.matters } : {}),
              ...(search.without ? { without: search.without } : {}),
            },
          },
          signal,
        }),
      ),
    enabled: search.model !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const form = search.form ?? 'plot';
  useKeys([
    {
      key: 'v',
      does: 'Another form: one plot, a panel a test, table',
      run: () => {
        const next = TREND_FORMS[(TREND_FORMS.indexOf(form) + 1) % TREND_FORMS.length]!;
        say({ form: next === 'plot' ? undefined : next });
      },
    },
  ]);
  const data = trends.data;
  const units = model.data?.units.filter((u) => u.configurations.length > 0) ?? [];
  const asked = models.data?.rows.find((m) => m.id === search.model);
  const about = model.data?.model ?? asked;
  const sentence = (
    <>
      How does{' '}
      <Choice
        name="Model"
        value={search.model}
        options={(models.data?.rows ?? [])
          .filter((m) => m.configurations > 0)
          .map((m) => ({
            value: m.id,
            label: `${m.maker} ${m.name}`,
            detail: `${m.configurations} ${m.configurations === 1 ? 'configuration' : 'configurations'}`,
          }))}
        onChoose={(next) => void navigate({ search: { model: next } })}
      >
        {about ? `${about.maker} ${about.name}` : 'a model'}
      </Choice>
      {units.length > 1 && (
        <>
          {', '}
          <Choice
            name="Unit"
            value={search.unit}
            options={[
              { value: undefined as number | undefined, label: 'every unit' },
              ...units.map((u) => ({ value: u.id, label: u.label })),
            ]}
            onChoose={(unit) => say({ unit, along: undefined })}
          >
            {units.find((u) => u.id === search.unit)?.label ?? 'every unit'}
          </Choice>
        </>
      )}{' '}
      change along{' '}
      {data ? (
        <Choice
          name="Along"
          value={data.along.key}
          options={data.offered.map((o) => ({
            value: o.key,
            label: o.label.toLowerCase(),
            detail: `${o.steps} ${o.steps === 1 ? 'step' : 'steps'}`,
          }))}
          onChoose={(along) => say({ along })}
        >
          {data.along.label.toLowerCase()}
        </Choice>
      ) : (
        '…'
      )}
      , on{' '}
      <Choice
        name="Tests"
        value={search.group}
        options={[
          { value: undefined as (typeof TEST_GROUPS)[number] | undefined, label: 'every test' },
          ...TEST_GROUPS.map((g) => ({
            value: g,
            label: `${testGroup(g)} tests`,
          })),
        ]}
        onChoose={(group) => say({ group })}
      >
        {search.group ? `${testGroup(search.group)} tests` : data ? `${data.lines.length} tests` : 'every test'}
      </Choice>
      , for{' '}
      <Choice
        name="Purpose"
        value={search.purpose}
        options={(purposes.data ?? []).map((p, i) => ({ value: i === 0 ? undefined : p.id, label: p.name }))}
        onChoose={(purpose) => say({ purpose })}
      >
        {data?.purpose ?? 'all-round use'}
      </Choice>
      , where{' '}
      <Choice
        name="What matters"
        value={search.matters ?? 3}
        options={MATTERS.map((m) => ({ value: m, label: `${m} %` }))}
        onChoose={(matters) => say({ matters: matters === 3 ? undefined : matters })}
      >
        {`${number(search.matters ?? 3)} %`}
      </Choice>{' '}
      matters?
    </>
  );
  return (
    <>
      <Opening title="Trends" sentence={sentence}>
        {data && (
          <div role="group" aria-label="Form" className="flex gap-2">
            {TREND_FORMS.map((f) => (
              <button
                key={f}
                className={`small px-1 pb-0.5 ${form === f ? 'border-b-2 border-gold font-semibold !text-ink' : 'link'}`}
                aria-pressed={form === f}
                onClick={() => say({ form: f === 'plot' ? undefined : f })}
              >
                {FORM_WORDS[f]}
              </button>
            ))}
          </div>
        )}
      </Opening>
      {search.model === undefined ? (
        <Start models={models} onChoose={(next) => say({ model: next })} />
      ) : trends.isPending ? (
        <Loading what="the trend" />
      ) : trends.isError ? (
        trends.error instanceof Problem &&
        (trends.error.code === 'nothing-varies' || trends.error.code === 'nothing-measured') ? (
          <Empty title="No steps yet">
            {trends.error.message}{' '}
            <Link to="/shelf/models/$modelId" params={{ modelId: String(search.model) }} className="link">
              Open the model
            </Link>
          </Empty>
        ) : (
          <Trouble error={trends.error} again={() => void trends.refetch()} />
        )
      ) : (
        <TrendShown trends={trends.data} search={search} say={say} />
      )}
    </>
  );
}

function Start({
  models,
  onChoose,
}: {
  models: Parameters<
    typeof Ready<{ rows: { id: number; maker: string; name: string; configurations: number }[] }>
  >[0]['query'];
  onChoose: (id: number) => void;
}) {
  return (
    <Ready query={models} what="the shelf">
      {(found) => {
        const several = found.rows.filter((m) => m.configurations > 1);
        return several.length === 0 ? (
          <Empty title="Nothing has two configurations yet">
            Copy a configuration, change one fact, and measure it: a new kernel, another power limit. Or measure the
            same one on another day.
          </Empty>
        ) : (
          <section>
            <h2 className="border-b border-hair pb-0.5">Measured more than one way</h2>
            <ul>
              {several.map((m) => (
                <li key={m.id} className="border-b border-hair-2 py-1.5">
                  <button className="font-semibold hover:underline" onClick={() => onChoose(m.id)}>
                    {m.maker} {m.name}
                  </button>{' '}
                  <span className="small">{m.configurations} configurations</span>
                </li>
              ))}
            </ul>
          </section>
        );
      }}
    </Ready>
  );
}
