import { useQuery } from '@tanstack/react-query';
import { api, value, type Schemas } from '../api/client.ts';
import { MarkSign } from '../chart/Mark.tsx';
import { times } from '../format/ratio.ts';
import { table } from '../export/csv.ts';
import { CopyButton } from '../ui/CopyButton.tsx';
import { ExportFigure } from '../export/ExportFigure.tsx';
import { count } from '../format/format.ts';
import type { TrendsSearch } from '../shell/search-params.ts';
import { Choice } from '../ui/Choice.tsx';
import { Ready } from '../ui/states.tsx';
import { useWidth } from '../ui/use-width.ts';
import { LineNames } from './LineNames.tsx';
import { LABELS, LEFT, LinesPlot, NARROW, type PlotLine } from './LinesPlot.tsx';
import { partingWords } from './divergence-words.ts';
import { askOf } from './trend-ask.ts';
import { places, type Trends } from './trends.ts';

export type Together = Schemas['Together'];

export const nameOf = (line: Together['lines'][number]) =>
  `${line.maker} ${line.model}${line.unit === undefined ? '' : `, ${line.unit}`}`;

/** Several units or models along the same fact: each line from its own first step, and where they part in words. */
export function TogetherShown({
  trends,
  search,
  say,
}: {
  trends: Trends;
  search: TrendsSearch;
  say: (change: Partial<TrendsSearch>) => void;
}) {
  const query = {
    ...askOf(search),
    along: trends.along.key,
    with: search.with ?? [],
    ...(search.metric !== undefined && { metric: search.metric }),
  };
  const found = useQuery({
    queryKey: ['trends', 'together', query],
    queryFn: ({ signal }) => value(api.GET('/api/trends/together', { params: { query }, signal })),
    retry: false,
  });
  return (
    <>
      <p className="small mb-1 print:hidden">
        Each line is the{' '}
        <Choice
          name="Test of the lines"
          value={search.metric}
          options={[
            { value: undefined as number | undefined, label: 'overall' },
            ...trends.lines.map((l) => ({ value: l.metric.id, label: l.metric.name })),
          ]}
          onChoose={(metric) => say({ metric })}
        >
          {trends.lines.find((l) => l.metric.id === search.metric)?.metric.name ?? 'overall'}
        </Choice>{' '}
        of one device, counted from its own first step.
      </p>
      <Ready query={found} what="the lines">
        {(data) => <Lines data={data} search={search} say={say} />}
      </Ready>
    </>
  );
}

function Lines({
  data,
  search,
  say,
}: {
  data: Together;
  search: TrendsSearch;
  say: (change: Partial<TrendsSearch>) => void;
}) {
  const [holder, width] = useWidth<HTMLDivElement>(1200);
  const scalable = data.along.order !== 'VERSION';
  const toScale = scalable && search.even !== true;
  const narrow = width < NARROW;
  const along = data.along.label.toLowerCase();
  const about = data.metric?.name ?? `overall of ${data.tests.length} ${data.tests.length === 1 ? 'test' : 'tests'}`;
  const lines: PlotLine[] = data.lines.map((l, slot) => ({
    id: String(slot + 1),
    name: nameOf(l),
    points: l.points,
    marks: [],
    slot,
  }));
  const lit = search.lit === undefined ? undefined : String(search.lit);
  const onLit = (id: string | undefined) => say({ lit: id === undefined ? undefined : Number(id) });
  const words = partingWords(data);
  const title = `${data.lines.map(nameOf).join(', ')} along ${along}`;
  return (
    <div ref={holder}>
      {search.form === 'table' ? (
        <TogetherTable data={data} />
      ) : (
        <ExportFigure name={title} caption={`${title}: ${about}`} csv={() => togetherCsv(data)}>
          <LinesPlot
            lines={lines}
            xs={places(data.steps, LEFT, width - (narrow ? 0 : LABELS) - 12, toScale)}
            steps={data.steps.map((s) => s.label)}
            width={width}
            label={`${about} of ${lines.length} devices along ${along}, each from its own first step; better is up. The table has the numbers.`}
            lit={lit}
            onLit={onLit}
          />
          {narrow && <LineNames lines={lines} lit={lit} onLit={onLit} />}
        </ExportFigure>
      )}
      <ul className="mt-2">
        {words.map((w, i) => (
          <li
            key={data.lines[i + 1]!.modelId + '-' + (data.lines[i + 1]!.unitId ?? '')}
            className="flex items-center gap-2 py-0.5"
          >
            <MarkSign slot={i + 1} size={13} /> {w}
          </li>
        ))}
      </ul>
      <p className="small mt-1">
        {data.metric
          ? `${data.metric.name}, in ${data.metric.unit}.`
          : `Over the ${count(data.tests.length)} ${data.tests.length === 1 ? 'test' : 'tests'} that all of them have, weighed for ${data.purpose}${data.notShared > 0 ? `; ${data.notShared} that some lack ${data.notShared === 1 ? 'is' : 'are'} left out` : ''}.`}{' '}
        {data.lines.some((l) => l.pooled) && 'Several configurations of a device at one step are taken together. '}
        Where they part is corrected for every step that both have.
      </p>
      <p className="small flex flex-wrap gap-x-4 print:hidden">
        {scalable && (
          <button className="link" aria-pressed={!toScale} onClick={() => say({ even: toScale ? true : undefined })}>
            {toScale ? 'steps at equal distances' : 'steps to scale'}
          </button>
        )}
        <CopyButton text={`${title} (${about}): ${words.join(' ')}`} what="the sentence" />
      </p>
    </div>
  );
}

function TogetherTable({ data }: { data: Together }) {
  return (
    <div className="wide overflow-auto" role="group" aria-label="Lines as a table" tabIndex={0}>
      <table className="data">
        <thead>
          <tr>
            <th>Device</th>
            {data.steps.map((s) => (
              <th key={s.label} className="text-right">
                {s.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {data.lines.map((l, slot) => (
            <tr key={slot}>
              <td className="whitespace-nowrap">
                <span className="inline-flex items-center gap-1">
                  <MarkSign slot={slot} size={13} /> {nameOf(l)}
                </span>
              </td>
              {data.steps.map((s, i) => {
                const p = l.points.find((o) => o.step === i);
                return (
                  <td key={s.label} className="text-right whitespace-nowrap">
                    {p ? (
                      <>
                        {times(p.ratio, 3)}
                        {p.low !== p.high && (
                          <span className="small block">
                            {times(p.low, 3)} to {times(p.high, 3)}
                          </span>
                        )}
                      </>
                    ) : (
                      '–'
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

export function togetherCsv(data: Together): string {
  return table([
    ['device', 'unit', data.along.label, data.metric?.name ?? 'Overall', '95 % low', '95 % high'],
    ...data.lines.flatMap((l) =>
      l.points.map((p) => [`${l.maker} ${l.model}`, l.unit, data.steps[p.step]!.label, p.ratio, p.low, p.high]),
    ),
  ]);
}
