import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../../api/client.ts';
import { mark, markReason, reading } from '../../format/format.ts';
import { Ready } from '../../ui/states.tsx';
import { CopyButton } from '../../ui/CopyButton.tsx';
import { CurvesPlot } from './CurvesPlot.tsx';
import { SensorsPart } from './SensorsPart.tsx';
import { FramesPart } from './FramesPart.tsx';
import { HeldPart } from './HeldPart.tsx';
import type { ComparedRow } from './order.ts';
import { toggled } from '../../format/parts.ts';
import { SessionsPart } from './SessionsPart.tsx';
import { copiedNumber } from '../../writeup/question/number-copy.ts';
import { formatRatio, times } from '../../format/ratio.ts';
import { sizeWords } from '../../format/verdict.ts';
import { sentence, type Words } from './words.ts';
import { Readings } from './Readings.tsx';

type Metric = Schemas['ComparedMetric'];

/** Under which conditions two were compared, where a number that is copied must say it. */
function taken({ take, baseTake }: Schemas['Comparison']) {
  return take === 'USUAL' && baseTake === 'USUAL' ? undefined : { take, baseTake };
}

/** What is behind a line: the single readings, where everything else stands, and what to quote. */
export function LineDetail({
  row,
  comparison,
  words,
}: {
  row: ComparedRow;
  comparison: Schemas['Comparison'];
  words: Words;
}) {
  const ids = [comparison.base.id, ...comparison.sides.map((s) => s.configuration.id)];
  const navigate = getRouteApi('/compare').useNavigate();
  const by = taken(comparison);
  const metric = useQuery({
    queryKey: ['compared-metric', row.metric.id, ids, comparison.take, comparison.baseTake],
    queryFn: () =>
      value(
        api.GET('/api/compare/metrics/{metricId}', {
          params: {
            path: { metricId: row.metric.id },
            query: { ids, take: comparison.take, baseTake: comparison.baseTake },
          },
        }),
      ),
  });
  return (
    <div className="px-3 pt-1 pb-4">
      <p className="small">
        {row.metric.suite} {row.metric.version},{' '}
        {row.metric.direction === 'MORE_IS_BETTER' ? 'more is better' : 'less is better'}.{' '}
        {row.cells
          .flatMap((c) => (c.outReason === undefined ? [] : [c.outReason]))
          .filter((r, i, all) => all.indexOf(r) === i)
          .map((r) => `Not in the overall: ${r}. `)}
        {row.cells.some((c) => c.percent !== undefined) && (
          <button
            className="link"
            onClick={() =>
              void navigate({
                search: (now) => ({ ...now, without: toggled(now.without, `test:${row.metric.testId}`) }),
              })
            }
          >
            Exclude this test
          </button>
        )}
      </p>
      {row.restsOn !== undefined && row.cells.some((c) => c.unmeasured) && (
        <p className="small">How repeatable it is has not been measured here; its noise is taken {row.restsOn}.</p>
      )}
      <Ready query={words} what="the sentences">
        {() =>
          row.cells.map((c, i) => {
            const said = sentence(words, row.metric.id, i);
            return (
              said !== undefined && (
                <p key={i} className="mt-1 flex flex-wrap items-baseline gap-x-2">
                  <span>{said}</span>
                  {c.ratio !== undefined && c.size !== undefined && (
                    <span className="small">
                      {c.size} · {times(c.ratio)} · {sizeWords(c, row.metric, 'unit')}
                    </span>
                  )}
                  <CopyButton text={said} what="the sentence" />
                  {c.ratio !== undefined && !comparison.per && (
                    <CopyButton
                      text={copiedNumber(formatRatio(c.ratio, 1 + comparison.materiality / 100), {
                        of: 'ratio',
                        configuration: comparison.sides[i]!.configuration.id,
                        base: comparison.base.id,
                        metric: row.metric.id,
                        ...(by && { by }),
                      })}
                      what="the ratio, to be pasted into a write-up"
                    >
                      copy as a number of a write-up
                    </CopyButton>
                  )}
                </p>
              )
            );
          })
        }
      </Ready>
      <Ready query={metric} what="the readings">
        {(data) => (
          <>
            <HeldPart data={data} comparison={comparison} />
            <MarksPart data={data} />
            <SessionsPart data={data} comparison={comparison} />
            <Readings
              data={data}
              row={comparison.per ? { ...row, cells: [] } : row}
              said={
                comparison.per ? '' : row.cells.flatMap((_, i) => sentence(words, row.metric.id, i) ?? []).join(' ')
              }
              comparison={comparison}
            />
            <CurvesPlot data={data} comparison={comparison} />
            <FramesPart data={data} comparison={comparison} />
            <SensorsPart data={data} comparison={comparison} />
          </>
        )}
      </Ready>
    </div>
  );
}

/** What the other marks say, and what they do: nothing by themselves, until somebody sets the reading aside. */
function MarksPart({ data }: { data: Metric }) {
  const marked = data.sides.flatMap((s) =>
    s.readings
      .filter((r) => r.asideReason === undefined)
      .flatMap((r) => r.marks.filter((m) => m.kind !== 'HELD').map((m) => ({ reading: r, mark: m }))),
  );
  return (
    <>
      {marked.map(({ reading: r, mark: m }) => (
        <p key={`${r.id}-${m.kind}`} className="mt-1 border-l-2 border-gold pl-3">
          <b className="font-semibold">{mark(m.kind)}</b> {reading(r.value, data.metric, r.resolution)}, run{' '}
          {r.runNumber}. {markReason(m)} It counts all the same;{' '}
          <Link to="/ledger" search={{ reading: r.id }} className="link">
            open it
          </Link>{' '}
          to set it aside with a reason.
        </p>
      ))}
    </>
  );
}
