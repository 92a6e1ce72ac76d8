import { useQuery } from '@tanstack/react-query';
import { getRouteApi } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { clockTime, duration, reason } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { PAUSE_MS, RUNS, TIMED_MS } from '../shell/search-params.ts';
import { Choice } from '../ui/Choice.tsx';
import { ChimeChoice } from '../ui/ChimeChoice.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { DuePart } from './DuePart.tsx';
import { Invite } from './Invite.tsx';
import { LanePart } from './LanePart.tsx';
import { benchTitle, useDone } from './use-done.ts';
import { useBench, useNow, type Lane } from './useBench.ts';

const route = getRouteApi('/bench');
const tests = (count: number) => `${count} ${count === 1 ? 'test' : 'tests'}`;
const BEFORE = [
  'Updates finished, device restarted',
  'Power mode as it is to be tested, plugged in',
  'Fresh browser profile, nothing else open',
  'Nothing records the screen',
  'Brightness and refresh rate as noted',
];

const seconds = (ms: number) => (ms === 0 ? 'no pause' : `${ms / 1000} s`);

/** Devices side by side, each running its round, live. */
export function BenchView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const bench = useBench();
  const now = useNow(bench.data?.now);
  const done = useDone(bench.data?.lanes);
  const plans = useQuery({ queryKey: ['plans'], queryFn: () => value(api.GET('/api/plans')) });
  const plan = plans.data?.find((p) => p.id === search.plan) ?? plans.data?.[0];
  const settings = plan && {
    planId: plan.id,
    runs: search.runs ?? plan.runs,
    timedMs: search.timed ?? plan.timedMs,
    pauseMs: search.pause ?? plan.pauseMs,
    mustOnly: search.must ?? false,
  };
  const estimate = useQuery({
    queryKey: ['estimate', settings],
    queryFn: () =>
      value(
        api.GET('/api/plans/{id}/time', {
          params: {
            path: { id: settings!.planId },
            query: { runs: settings!.runs, timedMs: settings!.timedMs, pauseMs: settings!.pauseMs },
          },
        }),
      ),
    enabled: settings !== undefined,
  });
  const nice = plan?.items.filter((i) => i.nice).length ?? 0;
  const ms = estimate.data && (settings?.mustOnly ? estimate.data.mustMs : estimate.data.wholeMs);
  const say = (change: Partial<typeof search>) => void navigate({ search: { ...search, ...change } });

  return (
    <>
      <Opening
        title="Bench"
        tab={benchTitle(bench.data?.lanes ?? [])}
        sentence={
          plan &&
          settings && (
            <>
              Running{' '}
              <Choice
                name="Plan"
                options={(plans.data ?? []).map((p) => ({
                  value: p.id,
                  label: p.name,
                  detail: tests(p.items.length),
                }))}
                value={plan.id}
                onChoose={(id) =>
                  say({ plan: id, must: undefined, runs: undefined, timed: undefined, pause: undefined })
                }
              >
                {plan.name}
              </Choice>
              :{' '}
              {nice > 0 ? (
                <Choice
                  name="Which tests"
                  options={[
                    { value: false, label: `all ${tests(plan.items.length)}` },
                    {
                      value: true,
                      label: `the ${plan.items.length - nice} it must have`,
                      detail: `${nice} are only nice to have`,
                    },
                  ]}
                  value={settings.mustOnly}
                  onChoose={(must) => say({ must: must || undefined })}
                >
                  {settings.mustOnly
                    ? `the ${tests(plan.items.length - nice)} it must have`
                    : `all ${tests(plan.items.length)}`}
                </Choice>
              ) : (
                tests(plan.items.length)
              )}
              ,{' '}
              <Choice
                name="Runs of each test"
                options={RUNS.map((n) => ({
                  value: n,
                  label: runsInWords(n),
                  ...(n === 1 ? { detail: 'one run proves nothing' } : {}),
                }))}
                value={settings.runs}
                onChoose={(runs) => say({ runs: runs as (typeof RUNS)[number] })}
              >
                {runsInWords(settings.runs)}
              </Choice>
              , timed for at least{' '}
              <Choice
                name="Least timed part"
                options={TIMED_MS.map((ms) => ({
                  value: ms,
                  label: seconds(ms),
                  ...(ms < 1000 ? { detail: 'for trying out; noisy' } : {}),
                }))}
                value={settings.timedMs}
                onChoose={(timed) => say({ timed: timed as (typeof TIMED_MS)[number] })}
              >
                {seconds(settings.timedMs)}
              </Choice>
              , with{' '}
              <Choice
                name="Pause between runs"
                options={PAUSE_MS.map((ms) => ({ value: ms, label: seconds(ms) }))}
                value={settings.pauseMs}
                onChoose={(pause) => say({ pause: pause as (typeof PAUSE_MS)[number] })}
              >
                {seconds(settings.pauseMs)}
              </Choice>
              {' between'}
              {ms !== undefined && (
                <>
                  , about <b className="font-semibold text-ink">{duration(ms)}</b> per device, until{' '}
                  {clockTime(now + ms)}
                </>
              )}
              {(estimate.data?.guessed ?? 0) > 0 && (
                <span className="small">
                  {' '}
                  (of {estimate.data!.guessed} {estimate.data!.guessed === 1 ? 'test' : 'tests'} the ledger knows no
                  duration yet)
                </span>
              )}
              .
            </>
          )
        }
      />
      <div className="grid gap-x-8 gap-y-6 lg:grid-cols-[1fr_290px]">
        <section aria-label="Devices at the bench" className="min-w-0">
          <Ready query={bench} what="the bench">
            {({ lanes }) => {
              const seated = lanes.filter((lane) => lane.phase !== 'WAITING');
              return (
                <>
                  {!bench.live && (
                    <p role="status" className="mb-2 border-l-2 border-gold pl-3">
                      The live connection is down; trying again. The devices go on by themselves.
                    </p>
                  )}
                  <p role="status" className={done ? 'mb-2 border-l-2 border-leaf pl-3' : 'sr-only'}>
                    {done}
                  </p>
                  {seated.map((lane) => (
                    <LanePart key={lane.seatId} lane={lane} now={now} />
                  ))}
                  {seated.length === 0 && (
                    <Empty title="No device is at the bench">
                      Make a code, open the address on the device, and type the code there. Any browser will do, also
                      another window on this machine.
                    </Empty>
                  )}
                </>
              );
            }}
          </Ready>
          <DuePart />
        </section>
        <aside>
          {settings && bench.data && (
            <Invite
              settings={settings}
              waiting={bench.data.lanes.filter((lane) => lane.phase === 'WAITING')}
              now={now}
            />
          )}
          <p className="mt-4">
            <ChimeChoice />
          </p>
          <section className="mt-7">
            <h3>Before the first run</h3>
            <ul className="mt-1 text-[13.5px]">
              {BEFORE.map((line) => (
                <li key={line} className="py-0.5 pl-4 -indent-4 text-ink-2">
                  – {line}
                </li>
              ))}
            </ul>
          </section>
          <Failures lanes={bench.data?.lanes ?? []} />
        </aside>
      </div>
    </>
  );
}

function runsInWords(n: number): string {
  return n === 1 ? '1 run each' : `${n} runs each`;
}

/** What did not give a score, and why. */
function Failures({ lanes }: { lanes: readonly Lane[] }) {
  const failed = lanes.flatMap((lane) =>
    lane.tests.flatMap((test) => {
      const cannot = test.runs.find((run) => run.state === 'COULD_NOT_RUN');
      const runs = cannot ? [cannot] : test.runs.filter((run) => run.state === 'FAILED' || run.state === 'STOPPED');
      return runs.map((run) => ({
        key: `${lane.seatId}-${test.testId}-${run.number}`,
        where: `${test.name}${cannot ? '' : `, run ${run.number}`}`,
        who: lane.configuration?.model ?? lane.device ?? lane.code,
        run,
      }));
    }),
  );
  if (failed.length === 0) return null;
  return (
    <section className="mt-7">
      <h3>Without a score</h3>
      {failed.slice(0, 12).map(({ key, where, who, run }) => (
        <p key={key} className="small border-b border-hair-2 py-1.5">
          <b className="font-semibold text-ink">{where}</b> on {who}:{' '}
          {run.reasonWords ?? (run.reason ? reason(run.reason) : '')}
          {run.state === 'STOPPED' && ' It is run again.'}
        </p>
      ))}
    </section>
  );
}
