import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { classes, day, DEVICE_CLASSES, deviceClass, price, type DeviceClass } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { Choices } from '../ui/Choice.tsx';
import { Pager } from '../ui/Pager.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { ModelForm } from './ModelForm.tsx';

const route = getRouteApi('/shelf');
const PAGE = 50;

/** Every model, with how many configurations it was tested in. */
export function ShelfView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const [making, setMaking] = useState(false);
  const chosen = search.classes ?? [];
  const page = (search.page ?? 1) - 1;
  useKeys([{ key: 'n', does: 'New model', run: () => setMaking(true) }]);
  const models = useQuery({
    queryKey: ['models', search],
    queryFn: ({ signal }) => value(api.GET('/api/models', { params: { query: { q: search.q ?? '', deviceClass: chosen, page, size: PAGE } }, signal })),
    placeholderData: keepPreviousData,
  });
  const say = (change: Partial<typeof search>) => void navigate({ search: { ...search, page: undefined, ...change }, replace: change.q !== undefined });

  return (
    <>
      <Opening
        title="Shelf"
        sentence={
          <>
            Showing{' '}
            <Choices name="Class of device" options={DEVICE_CLASSES.map((c) => ({ value: c, label: c.toLowerCase() }))} values={chosen}
              onChoose={(next: DeviceClass[]) => say({ classes: next.length > 0 ? next : undefined })}>{classes(chosen)}</Choices>
            {' with '}
            <input className="field !w-44 !py-0" placeholder="any name" aria-label="Words in the name" maxLength={120} value={search.q ?? ''}
              onChange={(event) => say({ q: event.target.value || undefined })} />
            {models.data && <span className="ml-2 text-[14px]">{models.data.total} {models.data.total === 1 ? 'model' : 'models'}</span>}
          </>
        }
      >
        <button className="button" onClick={() => setMaking(true)}>New model <kbd>n</kbd></button>
      </Opening>
      {making && (
        <ModelForm onCancel={() => setMaking(false)} onSaved={(made) => void navigate({ to: '/shelf/models/$modelId', params: { modelId: String(made.model.id) } })} />
      )}
      <Ready query={models} what="the shelf">
        {(found) =>
          found.total === 0 ? (
            search.q || chosen.length > 0
              ? <Empty title="Nothing on the shelf is like this">Take a word out, or show every class of device.</Empty>
              : <Empty title="The shelf is empty">Press <kbd>n</kbd> to note the first model, or bring a device to the bench (<kbd>g</kbd> <kbd>b</kbd>): it makes its own.</Empty>
          ) : (
            <>
              <table className="data w-full">
                <thead>
                  <tr>
                    <th>Model</th>
                    <th>Class</th>
                    <th className="hidden sm:table-cell">Released</th>
                    <th className="!text-right">Price</th>
                    <th className="!text-right">Configurations</th>
                  </tr>
                </thead>
                <tbody>
                  {found.rows.map((m) => (
                    <tr key={m.id} className="hover:bg-sheet">
                      <td>
                        <Link to="/shelf/models/$modelId" params={{ modelId: String(m.id) }} className="text-[15px] font-semibold hover:underline">{m.maker} {m.name}</Link>
                      </td>
                      <td className="text-ink-2">{deviceClass(m.deviceClass)}</td>
                      <td className="hidden text-ink-2 sm:table-cell">{m.released ? day(m.released) : '–'}</td>
                      <td className="text-right">{m.price !== undefined && m.currency ? price(m.price, m.currency) : '–'}</td>
                      <td className={`text-right ${m.configurations === 0 ? 'text-ink-3' : ''}`}>{m.configurations === 0 ? 'not tested' : m.configurations}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <Pager page={found.page} size={found.size} total={found.total} onPage={(next) => say({ page: next + 1 })} />
            </>
          )
        }
      </Ready>
    </>
  );
}
