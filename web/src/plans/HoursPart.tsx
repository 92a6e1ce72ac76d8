import { useQuery, keepPreviousData } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { clockTime, deviceClass, duration, type DeviceClass } from '../format/format.ts';
import { Choice } from '../ui/Choice.tsx';
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
  onMinutes: (minutes: number) => void;
  onPurpose: (purpose: number | undefined) => void;
  onPlan: (draft: Draft) => void;
}

/** There is less time than every test needs: which of them tell most, and a plan of these. */
export function HoursPart({ minutes, purpose, on, onMinutes, onPurpose, onPlan }: HoursPartProps) {
  const [runs, setRuns] = useState(3);
  const [must, setMust] = useState<readonly number[]>([]);
  const [never, setNever] = useState<readonly number[]>([]);
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
  const force = (test: number) => {
    setMust([...must.filter((t) => t !== test), test]);
    setNever(never.filter((t) => t !== test));
  };
  const refuse = (test: number) => {
    setNever([...never.filter((t) => t !== test), test]);
    setMust(must.filter((t) => t !== test));
  };
  const free = (test: number) => {
    setMust(must.filter((t) => t !== test));
    setNever(never.filter((t) => t !== test));
  };
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
        {hours.dataUpdatedAt > 0 && `Done at ${clockTime(hours.dataUpdatedAt + minutes * MINUTE_MS)} if begun now.`}
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
  const configurations = `${hours.configurations} configurations`;
  return (
    <>
      <p className="mt-2 text-[17px]">
        {last ? (
          <>
            <b className="font-semibold">
              {half(last.agree)} of {hours.pairs}
            </b>{' '}
            clear pairs of {configurations} come out the same way round as with every test
            {last.until > minutes && '; what it must have takes longer than there is time'}.
            {hours.left.length === 0 && ` Every test fits: they take ${duration(last.until * MINUTE_MS)}.`}
          </>
        ) : (
          'No test fits into this time.'
        )}
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
        <p className="small mt-1">
          The other way round:{' '}
          {hours.turned.map((pair) => `${name(pair.better)} before ${name(pair.worse)}`).join('; ')}.
        </p>
      )}
      <HoursPlot hours={hours} minutes={minutes} />
      <div className="mt-3 grid gap-x-10 gap-y-4 lg:grid-cols-2">
        <div>
          <h3>Taken, the most telling first</h3>
          <ol className="mt-1">
            {hours.chosen.map((step) => (
              <li key={step.testId} className="flex flex-wrap items-baseline gap-x-2 border-b border-hair-2 py-1">
                <span>{step.test}</span>
                <span className="small text-ink-3">{step.suite}</span>
                <span className="small ml-auto text-right whitespace-nowrap">
                  {step.guessed && 'perhaps '}
                  {duration(step.minutes * MINUTE_MS)}; {half(step.agree)} of {hours.pairs} so far
                  {must.includes(step.testId) && ', must have'}
                </span>
                {must.includes(step.testId) ? (
                  <button
                    className="small link min-h-6 whitespace-nowrap"
                    aria-label={`Undo: must have ${step.test}`}
                    onClick={() => free(step.testId)}
                  >
                    undo
                  </button>
                ) : (
                  <button
                    className="small link min-h-6 whitespace-nowrap"
                    aria-label={`Leave out ${step.test}`}
                    onClick={() => refuse(step.testId)}
                  >
                    leave out
                  </button>
                )}
              </li>
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
                <li key={test.testId} className="flex flex-wrap items-baseline gap-x-2 border-b border-hair-2 py-1">
                  <span>{test.test}</span>
                  <span className="small text-ink-3">
                    {test.follows
                      ? `ranks like ${test.follows} (${test.correlation!.toFixed(2)})`
                      : 'nothing like it is taken'}
                  </span>
                  <span className="small ml-auto whitespace-nowrap">
                    {duration(test.minutes * MINUTE_MS)}
                    {never.includes(test.testId) && ', left out by hand'}
                  </span>
                  {never.includes(test.testId) ? (
                    <button
                      className="small link min-h-6 whitespace-nowrap"
                      aria-label={`Undo: left out ${test.test}`}
                      onClick={() => free(test.testId)}
                    >
                      undo
                    </button>
                  ) : (
                    <button
                      className="small link min-h-6 whitespace-nowrap"
                      aria-label={`Take ${test.test}`}
                      onClick={() => force(test.testId)}
                    >
                      take
                    </button>
                  )}
                </li>
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

const half = (pairs: number) => (Number.isInteger(pairs) ? String(pairs) : pairs.toFixed(1));
const percent = (share: number) => `${Math.round(100 * share)} %`;
const name = (c: Schemas['ConfigurationRow']) => `${c.maker} ${c.model}`;
