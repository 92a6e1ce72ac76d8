import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../../api/client.ts';
import { MarkSign } from '../../chart/Mark.tsx';
import { factStep } from '../../format/format.ts';
import { Opening } from '../../shell/Opening.tsx';
import { slotOf, useTable } from '../../shell/table-store.ts';
import { Choice } from '../../ui/Choice.tsx';
import { Empty, Ready, Failed } from '../../ui/states.tsx';

type DifferencePage = Schemas['DifferencePage'];
type FactRow = Schemas['FactRow'];
const route = getRouteApi('/shelf/difference');
const ROLES = {
  UNDER_TEST: 'the change under test',
  ALSO_CHANGED: 'also changed',
  WITHIN_TOLERANCE: 'within tolerance',
  NONE: '',
} as const;

/** The facts of the table's configurations, or of those in the address, side by side: what differs, and what is under test. */
export function DifferenceView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const table = useTable();
  const ids = search.ids ?? table.entries.map((e) => e.id);
  const base =
    search.base !== undefined && ids.includes(search.base)
      ? search.base
      : table.base !== null && ids.includes(table.base)
        ? table.base
        : ids[0];
  const page = useQuery({
    queryKey: ['difference', ids, base],
    queryFn: () => value(api.GET('/api/configurations/difference', { params: { query: { ids, base: base! } } })),
    enabled: ids.length >= 2,
    placeholderData: keepPreviousData,
  });
  if (ids.length < 2) {
    return (
      <>
        <Opening
          title="Facts side by side"
          sentence="What differs between configurations, and what of it is the change under test."
        />
        <Empty title="Two configurations are needed">
          Put two or more on the table: open a model on the{' '}
          <Link to="/shelf" className="link">
            shelf
          </Link>
          , go to a configuration with the arrow keys and press <kbd>t</kbd>.
        </Empty>
      </>
    );
  }
  return (
    <Ready query={page} what="the facts">
      {(data) => <Difference page={data} onBase={(next) => void navigate({ search: { ...search, base: next } })} />}
    </Ready>
  );
}

function Difference({ page, onBase }: { page: DifferencePage; onBase: (id: number) => void }) {
  const table = useTable();
  const queries = useQueryClient();
  const mark = useMutation({
    mutationFn: async (key: string) => {
      const tested = page.differing.filter((r) => r.role === 'UNDER_TEST').map((r) => r.key);
      const keys = tested.includes(key) ? tested.filter((k) => k !== key) : [...tested, key];
      for (const c of page.configurations) {
        if (c.id !== page.base)
          await value(api.PUT('/api/configurations/{id}/tested', { params: { path: { id: c.id } }, body: { keys } }));
      }
    },
    onSettled: () => {
      for (const queryKey of [['difference'], ['configuration']]) void queries.invalidateQueries({ queryKey });
    },
  });
  const base = page.configurations.find((c) => c.id === page.base)!;
  const also = page.differing.filter((r) => r.role === 'ALSO_CHANGED').length;
  const tested = page.differing.filter((r) => r.role === 'UNDER_TEST').length;
  return (
    <>
      <Opening
        title="Facts side by side"
        sentence={
          <>
            {page.configurations.length} configurations, compared with{' '}
            <Choice
              name="Base"
              value={page.base}
              options={page.configurations.map((c) => ({
                value: c.id,
                label: `${c.maker} ${c.model}`,
                detail: c.name,
              }))}
              onChoose={onBase}
            >{`${base.model}, ${base.name}`}</Choice>
            :{' '}
            {tested === 0
              ? 'no change is marked as the one under test'
              : tested === 1
                ? 'one change under test'
                : `${tested} changes under test`}
            , {also === 0 ? 'nothing else changed' : `${also} ${also === 1 ? 'fact' : 'facts'} also changed`}.
          </>
        }
      />
      <Failed of={mark} />
      <div className="wide">
        <table className="data w-full">
          <thead>
            <tr>
              <th>Fact</th>
              {page.configurations.map((c) => (
                <th key={c.id} className="align-bottom">
                  <span className="flex items-center gap-1.5">
                    {slotOf(table, c.id) !== null && <MarkSign slot={slotOf(table, c.id)!} size={14} />}
                    <Link
                      to="/shelf/configurations/$configurationId"
                      params={{ configurationId: String(c.id) }}
                      className="text-[13.5px] font-semibold text-ink hover:underline"
                    >
                      {c.maker} {c.model}
                    </Link>
                    {c.id === page.base && <span className="small text-gold-ink">base</span>}
                  </span>
                  <span className="block max-w-64 truncate">{c.name}</span>
                </th>
              ))}
              <th>
                <span className="sr-only">What it is here</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {page.differing.map((row) => (
              <Line key={row.key} row={row} onMark={() => mark.mutate(row.key)} />
            ))}
            {page.differing.length === 0 && (
              <tr>
                <td colSpan={page.configurations.length + 2} className="text-ink-2">
                  Every fact that is known of both is the same.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <Folded
        title="known of some only"
        rows={page.partly}
        page={page}
        open={page.partly.length > 0 && page.differing.length === 0}
      />
      <Folded title="the same" rows={page.same} page={page} open={false} />
    </>
  );
}

function Line({ row, onMark }: { row: FactRow; onMark?: () => void }) {
  return (
    <tr className={row.role === 'UNDER_TEST' ? 'bg-leaf-soft' : ''}>
      <td className={row.role === 'WITHIN_TOLERANCE' ? 'text-ink-2' : 'font-semibold'}>
        {row.label} <span className="small block font-normal text-ink-3">{row.group}</span>
      </td>
      {row.cells.map((cell, i) => (
        <td key={i}>
          {cell.shown ?? <span className="text-ink-3">not known</span>}
          {cell.change && ' '}
          {cell.change && <span className="small ml-1 text-ink-2">{factStep(cell.change, row.unit)}</span>}
        </td>
      ))}
      <td className="text-right whitespace-nowrap">
        {onMark && (
          <>
            <span
              className="pill mr-2"
              data-tone={row.role === 'ALSO_CHANGED' ? 'wait' : row.role === 'WITHIN_TOLERANCE' ? 'off' : undefined}
            >
              {ROLES[row.role]}
            </span>
            <button data-changes className="small link" aria-pressed={row.role === 'UNDER_TEST'} onClick={onMark}>
              {row.role === 'UNDER_TEST' ? 'not this one' : 'this is under test'}
            </button>
          </>
        )}
      </td>
    </tr>
  );
}

function Folded({
  title,
  rows,
  page,
  open,
}: {
  title: string;
  rows: readonly FactRow[];
  page: DifferencePage;
  open: boolean;
}) {
  if (rows.length === 0) return null;
  return (
    <details className="mt-4" open={open}>
      <summary className="cursor-pointer text-ink-2">
        {rows.length} {rows.length === 1 ? 'fact' : 'facts'} {title}
      </summary>
      <div className="wide">
        <table className="data w-full">
          <thead className="sr-only">
            <tr>
              <th>Fact</th>
              {page.configurations.map((c) => (
                <th key={c.id}>
                  {c.model} {c.name}
                </th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Line key={row.key} row={row} />
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
