import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useRef, useState } from 'react';
import { api, value } from '../api/client.ts';
import { classes, day, DEVICE_CLASSES, deviceClass, number, price, type DeviceClass } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import type { SHELF_ORDERS } from '../shell/search-params.ts';
import { Choice, Choices } from '../ui/Choice.tsx';
import { ColumnsChoice } from '../ui/ColumnsChoice.tsx';
import { useHiddenColumns } from '../ui/hidden-columns.ts';
import { Pager } from '../ui/Pager.tsx';
import { RowBox } from '../ui/SelectionBar.tsx';
import { SortHeader, type Sorting } from '../ui/SortHeader.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { useSelection } from '../ui/use-selection.ts';
import { useRows } from '../ui/useRows.ts';
import { UnitsDue } from './UnitsDue.tsx';
import { FactCondition } from './fact/FactCondition.tsx';
import { ModelForm } from './model/ModelForm.tsx';
import { SelectedModels } from './model/SelectedModels.tsx';

const route = getRouteApi('/shelf');
const PAGE = 50;
const COLUMNS = [
  { key: 'CLASS', label: 'Class' },
  { key: 'RELEASED', label: 'Released' },
  { key: 'PRICE', label: 'Price' },
  { key: 'CONFIGURATIONS', label: 'Configurations' },
];
type Order = (typeof SHELF_ORDERS)[number];
/** In whatever currency a price is noted. */
const PRICES = [200, 500, 1000, 1500, 2000, 3000];

/** Every model, found by anything that is known of it. */
export function ShelfView() {
  const search = route.useSearch();
  const setSearch = route.useNavigate();
  const navigate = useNavigate();
  const words = useRef<HTMLInputElement>(null);
  const [making, setMaking] = useState(false);
  const chosen = search.classes ?? [];
  const page = (search.page ?? 1) - 1;
  const makers = useQuery({ queryKey: ['makers'], queryFn: () => value(api.GET('/api/makers')) });
  const models = useQuery({
    queryKey: ['models', search],
    queryFn: ({ signal }) =>
      value(
        api.GET('/api/models', {
          params: {
            query: {
              q: search.q ?? '',
              deviceClass: chosen,
              page,
              size: PAGE,
              retired: search.retired ?? false,
              ...(search.sort ? { sort: search.sort } : {}),
              ...(search.falling !== undefined ? { falling: search.falling } : {}),
              ...(search.maker ? { maker: search.maker } : {}),
              ...(search.since ? { releasedFrom: `${search.since}-01-01` } : {}),
              ...(search.dearest ? { dearest: search.dearest } : {}),
              ...(search.fact
                ? { fact: search.fact, relation: search.relation ?? 'KNOWN', value: search.value ?? '' }
                : {}),
            },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const open = (id: number) => void navigate({ to: '/shelf/models/$modelId', params: { modelId: String(id) } });
  const rows = models.data?.rows ?? [];
  const selection = useSelection(rows, (m) => m.id);
  const { propsOf } = useRows(rows, (m) => m.id, [
    { key: 'Enter', does: 'Open the model', run: (m) => open(m.id) },
    { key: ' ', does: 'Select the row, or not', run: (m) => selection.toggle(m) },
  ]);
  const hidden = useHiddenColumns('shelf');
  const sorting: Sorting<Order> = { by: search.sort ?? 'NAME', falling: search.falling ?? false };
  const heading = (
    by: Order,
    words: string,
    more: { right?: boolean; fallingFirst?: boolean; className?: string } = {},
  ) => (
    <SortHeader
      by={by}
      now={sorting}
      onSort={(next) =>
        say({ sort: next.by === 'NAME' ? undefined : next.by, falling: next.falling ? true : undefined })
      }
      {...more}
    >
      {words}
    </SortHeader>
  );
  useKeys([
    { key: 'n', does: 'New model', changes: true, run: () => setMaking(true) },
    { key: 'w', does: 'Type words to find', run: () => words.current?.focus() },
  ]);
  const say = (change: Partial<typeof search>) =>
    void setSearch({ search: { ...search, page: undefined, ...change }, replace: change.q !== undefined });
  const narrowed = Boolean(
    search.q || chosen.length > 0 || search.maker || search.since || search.dearest || search.fact,
  );
  const [thisYear] = useState(() => new Date().getFullYear());

  return (
    <>
      <Opening
        title="Shelf"
        sentence={
          <>
            Showing{' '}
            <Choices
              name="Class of device"
              options={DEVICE_CLASSES.map((c) => ({ value: c, label: c.toLowerCase() }))}
              values={chosen}
              onChoose={(next: DeviceClass[]) => say({ classes: next.length > 0 ? next : undefined })}
            >
              {classes(chosen)}
            </Choices>
            {' of '}
            <Choice
              name="Maker"
              value={search.maker}
              options={[
                { value: undefined, label: 'every maker' },
                ...(makers.data ?? []).map((m) => ({ value: m, label: m })),
              ]}
              onChoose={(maker) => say({ maker })}
            >
              {search.maker ?? 'every maker'}
            </Choice>
            {', released '}
            <Choice
              name="Released"
              value={search.since}
              options={[
                { value: undefined, label: 'whenever' },
                ...Array.from({ length: 12 }, (_, i) => ({ value: thisYear - i, label: `since ${thisYear - i}` })),
              ]}
              onChoose={(since) => say({ since })}
            >
              {search.since ? `since ${search.since}` : 'whenever'}
            </Choice>
            {', '}
            <Choice
              name="Price"
              value={search.dearest}
              options={[
                { value: undefined, label: 'at any price' },
                ...PRICES.map((p) => ({ value: p, label: `up to ${number(p)}` })),
              ]}
              onChoose={(dearest) => say({ dearest })}
            >
              {search.dearest ? `up to ${number(search.dearest)}` : 'at any price'}
            </Choice>
            {', '}
            <FactCondition fact={search.fact} relation={search.relation} value={search.value} onChange={say} />
            {', with '}
            <input
              ref={words}
              className="field w-48 py-0"
              placeholder="any words"
              aria-label="Words of its name, facts, units or configurations"
              maxLength={120}
              value={search.q ?? ''}
              onChange={(event) => say({ q: event.target.value || undefined })}
              onKeyDown={(event) => {
                if (event.key === 'Escape' || event.key === 'Enter') event.currentTarget.blur();
              }}
            />
            {models.data && (
              <span role="status" className="ml-2 text-[14px]">
                {models.data.total} {models.data.total === 1 ? 'model' : 'models'}
              </span>
            )}{' '}
            <button className="small link" onClick={() => say({ retired: search.retired ? undefined : true })}>
              {search.retired ? 'those in use' : 'retired ones'}
            </button>{' '}
            <ColumnsChoice list="shelf" columns={COLUMNS} />
          </>
        }
      >
        <Link to="/shelf/checklists" className="button">
          Checklists
        </Link>
        <button data-changes className={`button ${making ? '' : 'button-main'}`} onClick={() => setMaking(true)}>
          New model <kbd className="pointer-coarse:hidden">n</kbd>
        </button>
      </Opening>
      <UnitsDue className="mb-2" />
      <Twins />
      {making && <ModelForm onCancel={() => setMaking(false)} onSaved={(made) => open(made.model.id)} />}
      <Ready query={models} what="the shelf">
        {(found) =>
          found.total === 0 ? (
            narrowed || search.retired ? (
              <Empty title={search.retired && !narrowed ? 'Nothing is retired' : 'Nothing on the shelf is like this'}>
                <button className="link" onClick={() => void setSearch({ search: {} })}>
                  Reset filters
                </button>
              </Empty>
            ) : (
              <Empty title="The shelf is empty">
                Press <kbd>n</kbd> to note the first model, or bring a device to the bench (<kbd>g</kbd> <kbd>b</kbd>):
                it makes its own.
              </Empty>
            )
          ) : (
            <>
              <div className="wide">
                <table className="data w-full">
                  <thead>
                    <tr>
                      {heading('NAME', 'Model')}
                      {!hidden.includes('CLASS') && heading('CLASS', 'Class')}
                      {!hidden.includes('RELEASED') &&
                        heading('RELEASED', 'Released', { fallingFirst: true, className: 'hidden sm:table-cell' })}
                      {!hidden.includes('PRICE') && heading('PRICE', 'Price', { right: true })}
                      {!hidden.includes('CONFIGURATIONS') &&
                        heading('CONFIGURATIONS', 'Configurations', { right: true, fallingFirst: true })}
                    </tr>
                  </thead>
                  <tbody>
                    {found.rows.map((m) => (
                      <tr
                        key={m.id}
                        {...propsOf(m)}
                        aria-selected={selection.has(m)}
                        onClick={selection.onClick(m)}
                        className="-outline-offset-2 hover:bg-sheet aria-selected:bg-leaf-soft data-[active-row=true]:bg-band"
                      >
                        <td>
                          <span className="mr-2 align-middle">
                            <RowBox selection={selection} row={m} name={`${m.maker} ${m.name}`} />
                          </span>
                          <Link
                            to="/shelf/models/$modelId"
                            params={{ modelId: String(m.id) }}
                            className="text-[15px] font-semibold hover:underline"
                          >
                            {m.maker} {m.name}
                          </Link>
                        </td>
                        {!hidden.includes('CLASS') && <td className="text-ink-2">{deviceClass(m.deviceClass)}</td>}
                        {!hidden.includes('RELEASED') && (
                          <td className="hidden text-ink-2 sm:table-cell">{m.released ? day(m.released) : '–'}</td>
                        )}
                        {!hidden.includes('PRICE') && (
                          <td className="text-right">
                            {m.price !== undefined && m.currency ? price(m.price, m.currency) : '–'}
                          </td>
                        )}
                        {!hidden.includes('CONFIGURATIONS') && (
                          <td className={`text-right ${m.configurations === 0 ? 'text-ink-3' : ''}`}>
                            {m.configurations === 0 ? 'none yet' : m.configurations}
                          </td>
                        )}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              <SelectedModels selection={selection} retired={search.retired ?? false} />
              <Pager
                page={found.page}
                size={found.size}
                total={found.total}
                onPage={(next) => say({ page: next + 1 })}
              />
            </>
          )
        }
      </Ready>
    </>
  );
}

/** Configurations of one unit with equal facts, so that somebody decides whether they are the same. */
function Twins() {
  const twins = useQuery({
    queryKey: ['configurations', 'twins'],
    queryFn: () => value(api.GET('/api/configurations/twins')),
  });
  const first = twins.data?.[0];
  if (!twins.data || !first) return null;
  return (
    <p className="mb-2 border-l-2 border-gold py-0.5 pl-3">
      {twins.data.length} configurations have the same facts as another one of their unit.{' '}
      <Link to="/shelf/configurations/$configurationId" params={{ configurationId: String(first.id) }} className="link">
        Look at {first.maker} {first.model}, {first.name}
      </Link>
    </p>
  );
}
