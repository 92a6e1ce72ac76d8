import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../../api/client.ts';
import { place, testGroup } from '../../format/format.ts';
import { Ready } from '../../ui/states.tsx';
import { sortedPlaces, type PlaceOrder } from './places.ts';

const FIRST = 8;
const COLUMNS: readonly { order: PlaceOrder; name: string }[] = [
  { order: 'place', name: 'Place' },
  { order: 'test', name: 'Test' },
  { order: 'group', name: 'Group' },
];

/** Where a model stands in every test that others have run as well. */
export function PlacesPart({ id }: { id: number }) {
  const [order, setOrder] = useState<PlaceOrder>('place');
  const [all, setAll] = useState(false);
  const places = useQuery({
    queryKey: ['model', id, 'places'],
    queryFn: () => value(api.GET('/api/models/{id}/places', { params: { path: { id } } })),
  });
  return (
    <section className="mt-7">
      <h2 className="pb-0.5">Places</h2>
      <Ready query={places} what="its places">
        {(list) =>
          list.length === 0 ? (
            <p className="small border-t border-hair py-2">No place yet. It needs scores that others have as well.</p>
          ) : (
            <div className="wide">
              <table className="data w-full">
                <thead>
                  <tr>
                    {COLUMNS.map((c) => (
                      <th key={c.order} aria-sort={order === c.order ? 'ascending' : undefined}>
                        <button
                          className={order === c.order ? 'font-semibold text-ink' : 'link'}
                          onClick={() => setOrder(c.order)}
                        >
                          {c.name}
                        </button>
                      </th>
                    ))}
                    <th>Configuration</th>
                  </tr>
                </thead>
                <tbody>
                  {sortedPlaces(list, order)
                    .slice(0, all ? undefined : FIRST)
                    .map((p) => (
                      <tr key={p.metricId}>
                        <td className="font-semibold whitespace-nowrap">
                          {place(p.order, p.best, p.worst)} <span className="small font-normal">of {p.of}</span>
                        </td>
                        <td>
                          <Link
                            to="/standings"
                            search={{ metric: p.metricId }}
                            className="hover:underline"
                            title={p.suite}
                          >
                            {p.test}
                          </Link>
                        </td>
                        <td className="small">{testGroup(p.group)}</td>
                        <td className="small">{p.configuration}</td>
                      </tr>
                    ))}
                </tbody>
              </table>
              {!all && list.length > FIRST && (
                <button className="button mt-2" onClick={() => setAll(true)}>
                  Show all {list.length}
                </button>
              )}
            </div>
          )
        }
      </Ready>
    </section>
  );
}
