import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { moment } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { CopyButton } from '../ui/CopyButton.tsx';
import { Pager } from '../ui/Pager.tsx';
import { Empty, Ready } from '../ui/states.tsx';

const SIZE = 50;
const route = getRouteApi('/kept');

/** Every standing that was kept, with its address. */
export function KeptView() {
  const queries = useQueryClient();
  const page = (route.useSearch().page ?? 1) - 1;
  const navigate = route.useNavigate();
  const kept = useQuery({
    queryKey: ['kept', 'all', page],
    queryFn: () => value(api.GET('/api/kept-standings', { params: { query: { page, size: SIZE } } })),
    placeholderData: keepPreviousData,
  });
  const remove = useMutation({
    mutationFn: (key: string) => value(api.DELETE('/api/kept-standings/{key}', { params: { path: { key } } })),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['kept'] }),
  });
  const change = useMutation({
    mutationFn: ({ key, ...body }: { key: string; listed: boolean; living: boolean }) =>
      value(api.PUT('/api/kept-standings/{key}', { params: { path: { key } }, body })),
    onSettled: () => void queries.invalidateQueries({ queryKey: ['kept'] }),
  });
  return (
    <>
      <Opening
        title="Saved standings"
        sentence={
          <>
            Pages for readers without a sign-in. Those that are listed stand on{' '}
            <a href="/w" className="link" target="_blank" rel="noreferrer">
              the lab’s public page
            </a>
            .
          </>
        }
      />
      <Ready query={kept} what="the saved standings">
        {(data) =>
          data.total === 0 ? (
            <Empty title="None was saved yet">
              Open the{' '}
              <Link to="/standings" className="link">
                standings
              </Link>{' '}
              as readers should see them, and press Save.
            </Empty>
          ) : (
            <>
              <div className="wide">
                <table className="data w-full">
                  <thead>
                    <tr>
                      <th>What it says</th>
                      <th>Saved</th>
                      <th>By</th>
                      <th>Shows</th>
                      <th>Listed</th>
                      <th>Address</th>
                      <th>
                        <span className="sr-only">Remove</span>
                      </th>
                    </tr>
                  </thead>
                  <tbody>
                    {data.rows.map((k) => (
                      <tr key={k.key}>
                        <td>
                          <a href={`/w/standings/${k.key}`} className="link">
                            {k.title ?? k.caption}
                          </a>
                          {k.title && <span className="small block">{k.caption}</span>}
                        </td>
                        <td className="whitespace-nowrap">{moment(k.at)}</td>
                        <td>{k.person}</td>
                        <td>
                          <select
                            data-changes
                            className="field w-auto"
                            aria-label={`What ${k.title ?? k.caption} shows`}
                            value={k.living ? 'now' : 'then'}
                            disabled={change.isPending}
                            onChange={(e) =>
                              change.mutate({ key: k.key, listed: k.listed, living: e.target.value === 'now' })
                            }
                          >
                            <option value="then">as it was</option>
                            <option value="now">the newest numbers</option>
                          </select>
                        </td>
                        <td>
                          <input
                            data-changes
                            type="checkbox"
                            aria-label={`List ${k.title ?? k.caption} on the public page`}
                            checked={k.listed}
                            disabled={change.isPending}
                            onChange={(e) => change.mutate({ key: k.key, listed: e.target.checked, living: k.living })}
                          />
                        </td>
                        <td>
                          <CopyButton text={`${window.location.origin}/w/standings/${k.key}`} what="the address" />
                        </td>
                        <td>
                          <button
                            data-changes
                            className="small link"
                            disabled={remove.isPending}
                            onClick={() => {
                              if (window.confirm('Remove this page? Anyone with its address will find nothing there.'))
                                remove.mutate(k.key);
                            }}
                          >
                            remove
                          </button>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              {(remove.error ?? change.error) && (
                <p role="alert" className="text-plum">
                  {(remove.error ?? change.error)?.message}
                </p>
              )}
              <Pager
                page={page}
                size={SIZE}
                total={data.total}
                onPage={(next) => void navigate({ search: { page: next + 1 } })}
                back="Newer"
                on="Older"
              />
            </>
          )
        }
      </Ready>
    </>
  );
}
