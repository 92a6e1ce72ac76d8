import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useSettled } from '../ui/settled.ts';
import { api, value, type Schemas } from '../api/client.ts';
import { direction, percentOf, quantity, reading, unitName } from '../format/format.ts';
import type { SheetTest } from './places.ts';

type Look = Schemas['Look'];

/** Beside the sheet: how the text is understood, how it lies to the other runs, where it would stand, and whether it looks like a slip. */
export function LookPart({
  sessionId,
  test,
  run,
  text,
  error,
}: {
  sessionId: number;
  test: SheetTest;
  run: number;
  text: string | null;
  error: string | undefined;
}) {
  const settled = useSettled(text, 120);
  const stored = test.runs[run - 1];
  const plain = test.metric.kind !== 'CURVE' && test.metric.kind !== 'FRAME_TIMES';
  const asked =
    settled ??
    (plain && stored?.value !== undefined && !stored.aside
      ? reading(stored.value, { ...test.metric, unit: '1' }, stored.resolution ?? 0).replaceAll('\u202f', '')
      : null);
  const look = useQuery({
    queryKey: ['score-preview', sessionId, test.testId, run, asked, test.runs.map((r) => r.value)],
    queryFn: ({ signal }) =>
      value(
        api.POST('/api/sessions/{id}/look', {
          params: { path: { id: sessionId } },
          body: { testId: test.testId, run, text: asked!, byStopwatch: false },
          signal,
        }),
      ),
    enabled: asked !== null && asked.trim() !== '',
    placeholderData: keepPreviousData,
  });
  return (
    <section className="mt-6 border-l border-hair pl-4">
      <h2>{test.name}</h2>
      <p className="small">
        run {run}, in {unitName(test.metric.unit)}, {direction(test.metric.direction)}
      </p>
      {test.summary && <p className="mt-1 text-ink-2">{test.summary}</p>}
      {error && (
        <p role="alert" className="mt-2 text-plum">
          Not stored: {error}
        </p>
      )}
      {asked !== null && asked.trim() !== '' && look.data && <Said look={look.data} metric={test.metric} />}
      {look.isError && <p className="mt-2 text-plum">{look.error.message}</p>}
    </section>
  );
}

function Said({ look, metric }: { look: Look; metric: SheetTest['metric'] }) {
  const unit = metric.unit;
  if (look.reason !== undefined) return <p className="mt-2 text-plum">{look.reason}</p>;
  if (look.ran !== undefined)
    return (
      <p className="mt-2">
        {look.ran ? 'It ran and failed' : 'It could not run'}
        {look.words ? `: ${look.words}` : ', without a reason yet'}. Recorded as a result, not as a zero.
      </p>
    );
  return (
    <>
      <p className="mt-2 font-title text-[22px]">{reading(look.value!, metric, look.resolution ?? 0)}</p>
      {look.perOthers !== undefined && <p>{percentOf(look.perOthers)} of the mean of the other runs</p>}
      {look.place !== undefined && (
        <p>
          alone it would stand {look.place} of {look.of}
        </p>
      )}
      {look.moreRuns !== undefined && (
        <p className="small mt-1">
          {look.moreRuns === 0
            ? 'With this run the mean is known within 3 %.'
            : look.moreRuns === 1
              ? 'One more run would tell: the mean within 3 %.'
              : `About ${look.moreRuns} more runs would tell: the mean within 3 %.`}
        </p>
      )}
      {look.doubts.map((d, i) => (
        <p key={i} className="mt-2 border-l-2 border-gold pl-2 text-gold-ink">
          {d.kind === 'FAR' &&
            `More than three times away from the others, which are about ${quantity(d.would, unit)}.`}
          {d.kind === 'DECIMAL_POINT' && `A decimal point? ${quantity(d.would, unit)} would be like the others.`}
          {d.kind === 'SIXTY' && `Seconds for minutes? ${quantity(d.would, unit)} would be like the others.`}
          {d.kind === 'INVERSE' &&
            `A time instead of a rate? Turned round it is ${quantity(d.would, unit)}, like the others.`}
        </p>
      ))}
    </>
  );
}
