import { useQuery, keepPreviousData } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { clockTime, deviceClass, duration, percent, type DeviceClass } from '../format/format.ts';
import { toldApart } from '../format/named.ts';
import { Choice } from '../ui/Choice.tsx';
import { minutesUntil } from './minutes-until.ts';
import { Ready } from '../ui/states.tsx';
import { EMPTY, newItem, type Draft } from './draft.ts';
import { HoursPlot } from './HoursPlot.tsx';

type Hours = Schemas['Hours'];

const MINUTE_MS = 60_000;
const LEAST = 5;
const MOST = 480;
const RUNS = [1, 2, 3, 5];

interface HoursPartProps {
  minutes: number;
  purpose: number | undefined;
  on: DeviceClass | undefined;
  /** Tests that are taken, or left out, whatever they tell. */
  must: readonly number[];
  never: readonly number[];
  onForced: (must: number[], never: number[]) => void;
  onMinutes: (minutes: number) => void;
  onPurpose: (purpose: number | undefined) => void;
  onPlan: (draft: Draft) => void;
}

/** There is less time than every test needs: which of them tell most, and a plan of these. */
export function HoursPart(props: HoursPartProps) {
  const { minutes, purpose, on, must, never, onForced, onMinutes, onPurpose, onPlan } = props;
  const [runs, setRuns] = useState(3);
  const purposes = useQuery({ queryKey: ['purposes'], queryFn: () => value(api.GET('/api/purposes')) });
  const ask = {
    minutes,
    runs,
    pauseMs: EMPTY.pauseMs,
    ...(purpose !== undefined && { purpose }),
    ...(on && { deviceClass: [on] }),
    ...(must.length > 0 && { must: [...must] }),
    ...(never.length > 0 && { never: [...never] }),
  };
  const hours = useQuery({
    queryKey: ['standings-hours', ask],
    queryFn: ({ signal }) => value(api.GET('/api/standings/hours', { params: { query: ask }, signal })),
    placeholderData: keepPreviousData,
  });
  const named = purposes.data?.find((p) => p.id === purpose) ?? purposes.data?.[0];
  const others = (tests: readonly number[], test: number) => tests.filter((t) => t !== test);
  const force = (test: number) => onForced([...others(must, test), test], others(never, test));
  const refuse = (test: number) => onForced(others(must, test), [...others(never, test), test]);
  const free = (test: number) => onForced(others(must, test), others(never, test));
  return (
    <section aria-labelledby="hours" className="border-t border-hair pt-3 pb-6">
      <h2 id="hours">Hours at hand</h2>
      <p className="mt-1 text-[16px]">
        Which tests tell most of{' '}
        <Choice
          name="Purpose"
          value={named?.id}
          options={(purposes.data ?? []).map((p) => ({ value: p.id as number | undefined, label: p.name }))}
          onChoose={onPurpose}
        >
          {named?.name ?? 'the usual purpose'}
        </Choice>{' '}
        in <b className="font-semibold">{duration(minutes * MINUTE_MS)}</b>, with{' '}
        <Choice
          name="Runs of each test"
          value={runs}
          options={RUNS.map((n) => ({ value: n, label: n === 1 ? 'one run' : `${n} runs` }))}
          onChoose={setRuns}
        >
          {runs === 1 ? 'one run' : `${runs} runs`}
        </Choice>{' '}
        of each{on ? `, on a ${deviceClass(on)}` : ''}?{' '}
        {hours.dataUpdatedAt > 0 && `Done at ${clockTime(hours.dataUpdatedAt + minutes * MINUTE_MS)} if begun now.`}{' '}
        <label className="whitespace-nowrap">
          Or until{' '}
          <input
            type="time"
            className="field inline w-auto py-0"
            onChange={(event) => {
              const until = minutesUntil(event.target.value, new Date());
              if (until !== undefined) onMinutes(Math.min(MOST, Math.max(LEAST, until)));
            }}
          />
        </label>
      </p>
      <input
        type="range"
        className="mt-2 h-6 w-full max-w-[640px]"
        aria-label="Time at hand"
        aria-valuetext={duration(minutes * MINUTE_MS)}
        min={LEAST}
        max={MOST}
        step={5}
        value={minutes}
        onChange={(event) => onMinutes(Number(event.target.value))}
      />
      <Ready query={hours} what="the tests">
        {(answer) =>
          answer.nothing ? (
            <p className="mt-2 text-ink-2">{answer.nothing}</p>
          ) : (
            <Answer
              hours={answer}
              minutes={minutes}
              must={must}
              never={never}
              force={force}
              refuse={refuse}
              free={free}
              onPlan={() =>
                onPlan({
                  ...EMPTY,
                  name: `${named?.name ?? 'Tests'} in ${duration(minutes * MINUTE_MS)}${on ? `, ${deviceClass(on)}` : ''}`,
                  runs,
                  items: answer.chosen.map((step) => newItem(step.testId)),
                })
              }
            />
          )
        }
      </Ready>
    </section>
  );
}

interface AnswerProps {
  hours: Hours;
  minutes: number;
  must: readonly number[];
  never: readonly number[];
  force: (test: number) => void;
  refuse: (test: number) => void;
  free: (test: number) => void;
  onPlan: () => void;
}

function Answer({ hours, minutes, must, never, force, refuse, free, onPlan }: AnswerProps) {
  const last = hours.chosen.at(-1);
  const turned = hours.turned.flatMap((pair) => [pair.better, pair.worse]);
  return (
    <>
      <p className="mt-2 text-[17px]">
        {last ? (
          <>
            <b className="font-semibold">
              {half(last.agree)} of {hours.pairs}
            </b>{' '}
            clear pairs of {hours.configurations} configurations come out the same way round as with every test
            {last.until > minutes && '; what it must have takes longer than there is time'}.
            {hours.left.length === 0 && ` Every test fits: they take ${duration(last.until * MINUTE_MS)}.`}
          </>
        ) : (
          'No test fits into this time.'
        )}
        {!hours.unseen &&
          last &&
          ' What to expect of a device not seen yet is not worked out for so many tests and configurations.'}
        {hours.unseen && last && (
          <>
            {' '}
            For a device not seen yet, expect {percent(hours.unseen.mean)}
            {hours.unseen.low < hours.unseen.high && ` (${percent(hours.unseen.low)} to ${percent(hours.unseen.high)})`}
            {hours.rough && ', roughly: few configurations have been measured'}.
          </>
        )}
      </p>
      {hours.turned.length > 0 && (
        <details className="small mt-1">
          <summary className="cursor-pointer">
            {hours.turnedInAll} {hours.turnedInAll === 1 ? 'pair comes' : 'pairs come'} out the other way round
          </summary>
          <ul className="mt-1">
            {hours.turned.map((pair) => (
              <li key={`${pair.better.id} ${pair.worse.id}`}>
                {toldApart(pair.better, turned)} is ahead of {toldApart(pair.worse, turned)} with every test, and behind
                it with these
              </li>
            ))}
            {hours.turnedInAll > hours.turned.length && <li>and {hours.turnedInAll - hours.turned.length} more</li>}
          </ul>
        </details>
      )}
      <HoursPlot hours={hours} minutes={minutes} />
      <div className="mt-3 grid gap-x-10 gap-y-4 lg:grid-cols-2">
        <div>
          <h3>Taken, the most telling first</h3>
          <ol className="mt-1">
            {hours.chosen.map((step) => (
              <TestLine
                key={step.testId}
                test={step.test}
                beside={step.suite}
                time={`${step.guessed ? 'perhaps ' : ''}${duration(step.minutes * MINUTE_MS)}; ${half(step.agree)} of ${hours.pairs} so far`}
                said={must.includes(step.testId) ? 'must have' : null}
                change="Leave out"
                onChange={() => refuse(step.testId)}
                onUndo={() => free(step.testId)}
              />
            ))}
          </ol>
          {hours.chosen.length > 0 && (
            <button data-changes className="button button-main mt-3" onClick={onPlan}>
              Make a plan of these
            </button>
          )}
        </div>
        {hours.left.length > 0 && (
          <div>
            <h3>Left out, and which test it follows</h3>
            <ul className="mt-1">
              {hours.left.map((test) => (
                <TestLine
                  key={test.testId}
                  test={test.test}
                  beside={
                    test.follows
                      ? `ranks ${test.correlation! < 0 ? 'the other way round from' : 'like'} ${test.follows} (${test.correlation!.toFixed(2)})`
                      : 'nothing like it is taken'
                  }
                  time={duration(test.minutes * MINUTE_MS)}
                  said={never.includes(test.testId) ? 'left out' : null}
                  change="Take"
                  onChange={() => force(test.testId)}
                  onUndo={() => free(test.testId)}
                />
              ))}
            </ul>
          </div>
        )}
      </div>
      {hours.same.length > 0 && (
        <p className="small mt-3">
          Say the same:{' '}
          {hours.same
            .map(
              (pair) => `${pair.test} and ${pair.other} (${pair.correlation.toFixed(3)} over ${pair.configurations})`,
            )
            .join('; ')}
          .
        </p>
      )}
    </>
  );
}

interface TestLineProps {
  test: string;
  beside: string;
  time: string;
  /** What a person said of it; nothing where nobody did. */
  said: string | null;
  change: string;
  onChange: () => void;
  onUndo: () => void;
}

function TestLine({ test, beside, time, said, change, onChange, onUndo }: TestLineProps) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-2 border-b border-hair-2 py-1">
      <span>{test}</span>
      <span className="small text-ink-3">{beside}</span>
      <span className="small ml-auto text-right whitespace-nowrap">
        {time}
        {said && `, ${said}`}
      </span>
      <button
        className="small link min-h-6 whitespace-nowrap"
        aria-label={said ? `Undo: ${said} ${test}` : `${change} ${test}`}
        onClick={said ? onUndo : onChange}
      >
        {said ? 'undo' : change.toLowerCase()}
      </button>
    </li>
  );
}

const half = (pairs: number) => (Number.isInteger(pairs) ? String(pairs) : pairs.toFixed(1));
