import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { moment } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Pager } from '../ui/Pager.tsx';
import { Empty, Ready } from '../ui/states.tsx';

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
                  <li key={i} className="border-b border-hair-2 py-1.5">
                    <b className="font-semibold">{d.person}</b>{' '}
                    <span className="small">
                      {moment(d.at)}, <What doing={d} />
                      {d.undoneBy && `, undone by ${d.undoneBy}`}
                    </span>
                    <span className="block">{d.changes.map(changeWords).join('; ')}</span>
                  </li>
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

type Doing = Schemas['Doing'];

function What({ doing }: { doing: Doing }) {
  const id = String(doing.subjectId);
  if (doing.subject === 'model')
    return (
      <Link to="/shelf/models/$modelId" params={{ modelId: id }} className="link">
        model {id}
      </Link>
    );
  if (doing.subject === 'configuration')
    return (
      <Link to="/shelf/configurations/$configurationId" params={{ configurationId: id }} className="link">
        configuration {id}
      </Link>
    );
  return (
    <>
      {kindWords(doing.subject)} {id}
    </>
  );
}

const kindWords = (subject: string) => subject.replaceAll('_', ' ').replaceAll('-', ' ');

function changeWords({ field, from, to, reason }: Doing['changes'][number]): string {
  const what =
    from === undefined
      ? `${field}: ${to ?? ''}`
      : to === undefined
        ? `${field}: ${from} removed`
        : `${field}: ${from} → ${to}`;
  return reason ? `${what} (${reason})` : what;
}
