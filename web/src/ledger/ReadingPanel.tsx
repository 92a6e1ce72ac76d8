import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { DotPlot } from '../chart/DotPlot.tsx';
import { SeriesPlot } from '../chart/SeriesPlot.tsx';
import { EvidencePart } from '../evidence/EvidencePart.tsx';
import * as format from '../format/format.ts';
import { Panel } from '../ui/Panel.tsx';
import { Ready } from '../ui/states.tsx';
import { TracksPart } from './TracksPart.tsx';
import { Aside, Correct } from './ReadingActions.tsx';

type ReadingPage = Schemas['ReadingPage'];

/** A reading with everything behind it: its timing samples, its sample, its history; and setting it aside. */
export function ReadingPanel({ id, onClose }: { id: number | undefined; onClose: () => void }) {
  const reading = useQuery({
    queryKey: ['reading', id],
    queryFn: () => value(api.GET('/api/readings/{id}', { params: { path: { id: id! } } })),
    enabled: id !== undefined,
  });
  return (
    <Panel
      open={id !== undefined}
      onClose={onClose}
      side
      title={reading.data && id !== undefined ? reading.data.metric.test : 'Reading'}
    >
      {id !== undefined && (
        <Ready query={reading} what="the reading">
          {(page) => <Details key={page.id} page={page} />}
        </Ready>
      )}
    </Panel>
  );
}

/** More samples than this of frames are drawn as their times. */
const MOST_DOTS = 120;

function Details({ page }: { page: ReadingPage }) {
  const { metric, configuration: c, sample } = page;
  const open = page.asides.find((a) => a.takenBackAt === undefined);
  const byFrame = metric.unit === 'fps' && page.timings.length > MOST_DOTS;
  return (
    <>
      <p className={`mt-3 font-title text-[32px] leading-none ${open ? 'text-ink-3 line-through' : ''}`}>
        {format.reading(page.value, metric, page.resolution)}
      </p>
      <p className="small mt-1">
        {metric.direction === 'MORE_IS_BETTER' ? 'More is better' : 'Less is better'}; {metric.suite} {metric.version};
        run {page.runNumber}
        {page.attempt > 1 && `, attempt ${page.attempt}`}, {format.moment(page.finishedAt)}
        {page.durationMs > 0 && (
          <>
            , took {format.duration(page.durationMs)}
            {page.timedMs !== undefined &&
              `, ${format.percent(Math.min(1, page.timedMs / page.durationMs))} of it timed`}
          </>
        )}
        {page.person !== undefined && <>, by {page.person}</>}.
      </p>
      {page.note && <p className="mt-1">{page.note}</p>}
      {metric.formula !== undefined && (
        <p className="small mt-1">
          Computed from others of its session: <code>{metric.formula}</code>.{' '}
          <Link to="/suites/$versionId" params={{ versionId: String(metric.suiteVersionId) }} className="link">
            What its names stand for
          </Link>
        </p>
      )}
      {page.marks.map((m) => (
        <p key={m.kind} className="mt-2 border-l-2 border-gold pl-2 text-gold-ink">
          <b className="font-semibold">{format.mark(m.kind)}</b> {format.markReason(m)}
        </p>
      ))}
      <p className="mt-3">
        <Link
          to="/shelf/configurations/$configurationId"
          params={{ configurationId: String(c.id) }}
          className="font-semibold hover:underline"
        >
          {c.maker} {c.model}
        </Link>
        <span className="small block">
          {c.name}, {c.unit}
        </span>
        <Link to="/ledger" search={{ session: page.sessionId }} className="small link">
          its session
        </Link>
      </p>
      {page.timings.length > 0 && metric.kind === 'CURVE' && (
        <section className="mt-5">
          <h3>Curve</h3>
          <SeriesPlot
            points={pairs(page.timings)}
            logarithmic
            xUnit={metric.xUnit ?? ''}
            yUnit={metric.unit}
            name={metric.test}
          />
        </section>
      )}
      {page.timings.length > 0 && metric.kind === 'FRAME_TIMES' && (
        <section className="mt-5">
          <h3>Frame times in ms</h3>
          <SeriesPlot
            points={page.timings.map((y, i) => ({ x: i + 1, y }))}
            logarithmic={false}
            xUnit="frames"
            yUnit="ms"
            name={metric.test}
          />
        </section>
      )}
      {page.timings.length > 0 && metric.kind !== 'CURVE' && metric.kind !== 'FRAME_TIMES' && (
        <section className="mt-5">
          <h3>{byFrame ? 'Frame times in ms' : 'Timed samples'}</h3>
          {byFrame ? (
            <SeriesPlot
              points={page.timings.map((rate, i) => ({ x: i + 1, y: 1000 / rate }))}
              logarithmic={false}
              xUnit="frames"
              yUnit="ms"
              name={metric.test}
            />
          ) : (
            <DotPlot
              values={page.timings}
              unit={metric.unit}
              marked={page.value}
              name={`Timed samples of ${metric.test}`}
            />
          )}
          <p className="small">
            {page.timings.length} samples in order; the reading is their median
            {page.resolution > 0 && (
              <>
                . The clock’s step is worth {format.number(page.resolution, 2)} {metric.unit}
              </>
            )}
            .
          </p>
        </section>
      )}
      <TracksPart tracks={page.tracks} />
      {sample && (
        <section className="mt-5">
          <h3>What counts for this test and configuration</h3>
          <p className="mt-1">
            {sampleCentre(sample, metric)}{' '}
            <span className="small">
              from {sample.n} {sample.n === 1 ? 'reading' : 'readings'}
              {metric.kind !== 'CHECK' && (
                <>
                  , {format.reading(sample.smallest, { ...metric, unit: '1' })} to{' '}
                  {format.reading(sample.largest, { ...metric, unit: '1' })}
                </>
              )}
              {sample.spreadPercent !== undefined && <>, spread {sample.spreadPercent.toFixed(2)} %</>}
            </span>
          </p>
        </section>
      )}
      {metric.formula === undefined && <Aside page={page} open={open !== undefined} />}
      {metric.formula === undefined && metric.series === undefined && !open && <Correct page={page} />}
      <EvidencePart sessionId={page.sessionId} readOnly runs={[{ id: page.runId, name: 'this run' }]} />
      {(page.asides.length > 0 || page.corrects !== undefined || page.correctedBy.length > 0) && (
        <section className="mt-5">
          <h3>History</h3>
          {page.corrects && (
            <p className="small border-b border-hair-2 py-1">
              Stands for{' '}
              <Link to="/ledger" search={{ reading: page.corrects.id }} className="link">
                {format.reading(page.corrects.value, metric, page.corrects.resolution)}
              </Link>
              , which was a mistake.
            </p>
          )}
          {page.correctedBy.map((r) => (
            <p key={r.id} className="small border-b border-hair-2 py-1">
              Corrected to{' '}
              <Link to="/ledger" search={{ reading: r.id }} className="link">
                {format.reading(r.value, metric, r.resolution)}
              </Link>
            </p>
          ))}
          {page.asides.map((a) => (
            <p key={a.at} className="small border-b border-hair-2 py-1">
              Set aside by {a.person}, {format.moment(a.at)}: {a.reason}
              {a.takenBackAt && (
                <span className="block">
                  Undone by {a.takenBackBy}, {format.moment(a.takenBackAt)}
                </span>
              )}
            </p>
          ))}
        </section>
      )}
    </>
  );
}

/** What a sample comes to: of checks how many were passed; words have no mean, so of choices only the ends are told. */
export function sampleCentre(
  sample: Pick<NonNullable<ReadingPage['sample']>, 'centre'>,
  metric: Pick<ReadingPage['metric'], 'kind' | 'unit'>,
): string {
  if (metric.kind === 'CHECK') return `${format.percent(sample.centre)} passed`;
  return metric.kind === 'CHOICE' ? '' : format.quantity(sample.centre, metric.unit);
}

/** x and y in turn, as pairs. */
function pairs(values: readonly number[]): { x: number; y: number }[] {
  return Array.from({ length: Math.floor(values.length / 2) }, (_, i) => ({
    x: values[2 * i]!,
    y: values[2 * i + 1]!,
  }));
}
