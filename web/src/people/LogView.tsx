import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { Opening } from '../shell/Opening.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Pager } from '../ui/Pager.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { kindWords, LogLine } from './LogLine.tsx';

const route = getRouteApi('/people/log');
const SIZE = 50;

/** Who did what: everything that keeps a history, by person, kind and time. */
export function LogView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const say = (change: Partial<typeof search>) => void navigate({ search: { ...search, page: undefined, ...change } });
  const page = (search.page ?? 1) - 1;
  const { page: _, ...filter } = search;
  const query = { ...filter, page, size: SIZE };
  const log = useQuery({
    queryKey: ['doings', query],
    queryFn: () => value(api.GET('/api/doings', { params: { query } })),
    placeholderData: keepPreviousData,
  });
  const options = (all: readonly string[] | undefined, everything: string, words = (text: string) => text) => [
    { value: undefined as string | undefined, label: everything },
    ...(all ?? []).map((one) => ({ value: one, label: words(one) })),
  ];
  return (
    <>
      <Opening
        title="Who did what"
        sentence={
          <>
            What{' '}
            <Choice
              name="Person"
              value={search.person}
              options={options(log.data?.people, 'anybody')}
              onChoose={(person) => say({ person })}
            >
              {search.person ?? 'anybody'}
            </Choice>{' '}
            did to{' '}
            <Choice
              name="Kind"
              value={search.subject}
              options={options(log.data?.subjects, 'anything', kindWords)}
              onChoose={(subject) => say({ subject })}
            >
              {search.subject ? kindWords(search.subject) : 'anything'}
            </Choice>
            , from{' '}
            <input
              type="date"
              className="field inline w-auto"
              aria-label="From this day"
              value={search.from ?? ''}
              onChange={(e) => say({ from: e.target.value || undefined })}
            />{' '}
            to{' '}
            <input
              type="date"
              className="field inline w-auto"
              aria-label="To this day"
              value={search.to ?? ''}
              onChange={(e) => say({ to: e.target.value || undefined })}
            />
            , newest first.
          </>
        }
      />
      <Ready query={log} what="the log">
        {({ page: found }) =>
          found.total === 0 ? (
            <Empty title="Nothing like this was done">
              <button className="link" onClick={() => void navigate({ search: {} })}>
                Reset filters
              </button>
            </Empty>
          ) : (
            <>
              <ul aria-label="What was done">
                {found.rows.map((d, i) => (
                  <LogLine key={i} of={d} />
                ))}
              </ul>
              <Pager page={page} size={SIZE} total={found.total} onPage={(next) => say({ page: next + 1 })} />
            </>
          )
        }
      </Ready>
    </>
  );
}
