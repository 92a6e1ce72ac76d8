import { useQueryClient } from '@tanstack/react-query';
import { changed } from '../api/made-from.ts';
import { EvidencePart } from '../evidence/EvidencePart.tsx';
import { LookPart } from './LookPart.tsx';
import { isSeries, type Sheet, type SheetTest } from './places.ts';
import { PointsPart } from './PointsPart.tsx';
import { isTime } from './stopwatch.ts';
import { Stopwatch } from './Stopwatch.tsx';
import { TextPart } from './TextPart.tsx';

/** Beside the scores: the stopwatch, what the typed score would say, texts of scores, and what else belongs to the session. */
export function BesideSheet({
  sessionId,
  tests,
  typing,
  over,
  watch,
  onPoints,
}: {
  sessionId: number;
  tests: readonly SheetTest[];
  /** The place that is chosen; absent where nothing can be typed. @see LookPart */
  typing?: { test: SheetTest; run: number; text: string | null; why: string | undefined };
  over: boolean;
  /** Times in ms on the page's own clock. */
  watch: {
    since: number | null;
    onStart: (at: number) => void;
    onStop: (at: number, goOn: boolean) => void;
    onReset: () => void;
  };
  onPoints: (page: Sheet) => void;
}) {
  const queries = useQueryClient();
  return (
    <>
      {typing && isTime(typing.test.metric.unit) && (
        <Stopwatch
          since={watch.since}
          onStart={() => watch.onStart(performance.now())}
          onStop={() => watch.onStop(performance.now(), false)}
          onLap={() => watch.onStop(performance.now(), true)}
          onReset={watch.onReset}
        />
      )}
      {typing && isSeries(typing.test) && (
        <PointsPart
          key={`${typing.test.testId}-${typing.run}`}
          sessionId={sessionId}
          test={typing.test}
          run={typing.run}
          onStored={onPoints}
        />
      )}
      {typing && (
        <LookPart sessionId={sessionId} test={typing.test} run={typing.run} text={typing.text} error={typing.why} />
      )}
      {!over && (
        <TextPart
          sessionId={sessionId}
          onStored={() => {
            void queries.invalidateQueries({ queryKey: ['evidence', sessionId] });
            void changed(queries, 'scores');
          }}
        />
      )}
      <EvidencePart
        sessionId={sessionId}
        runs={tests.flatMap((t) =>
          t.runs.flatMap((r) => (r.runId === undefined ? [] : [{ id: r.runId, name: `${t.name}, run ${r.number}` }])),
        )}
      />
    </>
  );
}
