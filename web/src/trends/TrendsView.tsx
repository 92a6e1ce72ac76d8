import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, Problem, value } from '../api/client.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { TREND_FORMS, type TrendsSearch } from '../shell/search-params.ts';
import { aboutTrend } from '../writeup/question/begin.ts';
import { WriteUpButton } from '../writeup/question/WriteUpButton.tsx';
import { Empty, Loading, Trouble } from '../ui/states.tsx';
import { TrendsStart } from './TrendsStart.tsx';
import { TogetherShown } from './TogetherShown.tsx';
import { askOf, byOf } from './trend-ask.ts';
import { TrendShown } from './TrendShown.tsx';
import { TrendsSentence } from './TrendsSentence.tsx';

const route = getRouteApi('/trends');
const FORM_WORDS = { plot: 'One plot', panels: 'A panel a test', table: 'Table' } as const;
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
    queryKey: ['trends', askOf(search)],
    queryFn: ({ signal }) => value(api.GET('/api/trends', { params: { query: askOf(search) }, signal })),
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
  return (
    <>
      <Opening
        title="Trends"
        sentence={
          <TrendsSentence
            search={search}
            models={models.data?.rows ?? []}
            page={model.data}
            purposes={purposes.data ?? []}
            trends={data}
            say={say}
          />
        }
      >
        {data && (
          <div role="group" aria-label="Form" className="flex gap-2">
            {TREND_FORMS.filter((f) => !search.with || f !== 'panels').map((f) => (
              <button
                key={f}
                className={`small px-1 pb-0.5 ${form === f ? 'border-b-2 border-gold font-semibold text-ink' : 'link'}`}
                aria-pressed={form === f}
                onClick={() => say({ form: f === 'plot' ? undefined : f })}
              >
                {FORM_WORDS[f]}
              </button>
            ))}
          </div>
        )}
        {data && <WriteUpButton beginning={() => aboutTrend(data, byOf(search))} />}
      </Opening>
      {search.model === undefined ? (
        <TrendsStart />
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
            {search.along !== undefined && (
              <>
                {', or '}
                <button className="link" onClick={() => say({ along: undefined })}>
                  go along what it has most of
                </button>
              </>
            )}
          </Empty>
        ) : (
          <Trouble error={trends.error} again={() => void trends.refetch()} />
        )
      ) : search.with ? (
        <TogetherShown trends={trends.data} search={search} say={say} />
      ) : (
        <TrendShown trends={trends.data} search={search} say={say} />
      )}
    </>
  );
}
