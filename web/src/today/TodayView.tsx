import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useSyncExternalStore, type ReactNode } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { DuePart } from '../bench/DuePart.tsx';
import { nowInWords, phasePill } from '../bench/lane-words.ts';
import { useBench, useNow } from '../bench/useBench.ts';
import { PairLine, PAIRS } from '../compare/ComparePairs.tsx';
import { day } from '../format/format.ts';
import { named } from '../format/named.ts';
import { LogLine } from '../people/LogLine.tsx';
import { UnitsDue, useUnitsDue } from '../shelf/UnitsDue.tsx';
import { FirstSteps } from '../shell/FirstSteps.tsx';
import { Opening } from '../shell/Opening.tsx';
import { useLastVisit } from '../shell/use-last-visit.ts';
import { unsentSessions } from '../sheet/typed.ts';
import { TELLING, TrendLine } from '../trends/TrendsStart.tsx';
import { UnfinishedNote } from '../ui/UnfinishedNote.tsx';
import { Trouble } from '../ui/states.tsx';
import { useUnsent } from '../unsent/use-unsent.ts';
import { NumbersOff } from './NumbersOff.tsx';

type Pair = Schemas['Pair'];
/** As much as is read at a glance; each view has the rest. */
const SHOWN = 5;
/** Write-ups whose numbers are held against what is measured: those that were changed last. */
const CHECKED = 30;
const LOG_SHOWN = 10;
const NEVER = '1970-01-01T00:00:00Z';

const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'long' });

/** Where the lab stands: what runs, what is due, what is not stored, what no longer agrees, and what is new. */
export function TodayView() {
  const before = useLastVisit();
  const bench = useBench();
  const now = useNow(bench.data?.now);
  const queries = useQueryClient();
  const lanes = (bench.data?.lanes ?? []).filter((lane) => lane.phase !== 'CLEARED');
  // A code that waits is no device yet.
  const devices = lanes.filter((lane) => lane.phase !== 'WAITING').length;
  const units = useUnitsDue();
  const writeUps = useQuery({
    queryKey: ['write-ups', 'today'],
    queryFn: () => value(api.GET('/api/write-ups', { params: { query: { size: CHECKED } } })),
  });
  const since = before === undefined ? NEVER : new Date(before).toISOString();
  const log = useQuery({
    queryKey: ['doings', 'since', since],
    queryFn: () => value(api.GET('/api/doings', { params: { query: { since, size: LOG_SHOWN } } })),
  });
  // Every finished run makes them other ones; while devices measure, what is there is enough, and the server has better to do.
  const measuring = lanes.some((lane) => lane.phase === 'RUNNING' || lane.phase === 'COOLING');
  const pairs = useQuery({ ...PAIRS, enabled: !measuring || queries.getQueryData(PAIRS.queryKey) === undefined });
  const trends = useQuery({ ...TELLING, enabled: !measuring || queries.getQueryData(TELLING.queryKey) === undefined });
  const readings = useQuery({
    queryKey: ['ledger', 'first'],
    queryFn: () => value(api.GET('/api/ledger', { params: { query: { size: 1 } } })),
  });
  const unsent = useUnsent();
  const waiting = useSyncExternalStore(unsent.subscribe, () => unsentSessions(unsent).join())
    .split(',')
    .filter((id) => id !== '')
    .map(Number);
  const today = new Date(now);
  const changes = log.data?.page.total ?? 0;
  return (
    <>
      <Opening
        title="Today"
        sentence={
          <>
            {WEEKDAY.format(today)}, {day(today.toISOString())}:{' '}
            <b className="font-semibold text-ink">{counted(devices, 'device')} on the bench</b>
            {units.data && units.data.length > 0 && `, ${counted(units.data.length, 'unit')} to send back soon`}
            {before !== undefined && log.data && `, ${counted(changes, 'change')} since you were here`}.
          </>
        }
      />
      {readings.data?.total === 0 && (
        <section className="mb-6">
          <h2>First steps</h2>
          <FirstSteps />
        </section>
      )}
      <div className="grid items-start gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <div className="flex min-w-0 flex-col gap-6">
          {waiting.length > 0 && (
            <Part title="Typed and not stored yet">
              {waiting.map((session) => (
                <WaitingScores key={session} session={session} />
              ))}
            </Part>
          )}
          <Part title="On the bench" more={<Link to="/bench">Open the bench</Link>}>
            {bench.isError && bench.data === undefined ? (
              <Trouble error={bench.error} again={() => void bench.refetch()} />
            ) : lanes.length === 0 ? (
              <li className="small py-1.5">Nothing is being measured.</li>
            ) : (
              lanes.map((lane) => {
                const { words, tone } = phasePill(lane);
                return (
                  <li key={lane.seatId} className="border-b border-hair-2 py-1.5">
                    <b className="font-semibold">
                      {lane.configuration
                        ? `${lane.configuration.maker} ${lane.configuration.model}`
                        : (lane.device ?? `Code ${lane.code}`)}
                    </b>{' '}
                    <span className="pill" data-tone={tone}>
                      {words}
                    </span>
                    <span className="small block">
                      {lane.planName}. {nowInWords(lane, now)}
                    </span>
                  </li>
                );
              })
            )}
          </Part>
          <UnfinishedNote />
          <DuePart />
          {units.data && units.data.length > 0 && (
            <Part title="Units to send back" more={<Link to="/shelf">Open the shelf</Link>}>
              <li className="pt-1.5">
                <UnitsDue />
              </li>
            </Part>
          )}
          {writeUps.data && writeUps.data.total > 0 && (
            <Part title="Write-ups" more={<Link to="/write-ups">Open all {writeUps.data.total}</Link>}>
              {writeUps.data.rows.map((w, i) => (
                <NumbersOff key={w.id} of={w} onlyOff={i >= SHOWN} />
              ))}
              {writeUps.data.total > CHECKED && (
                <li className="small py-1.5">The {CHECKED} that were changed last are checked.</li>
              )}
            </Part>
          )}
        </div>
        <div className="flex min-w-0 flex-col gap-6">
          {pairs.data && pairs.data.length > 0 && (
            <Part title="What the latest changes came to" more={<Link to="/compare">Open Compare</Link>}>
              {eachOnce(pairs.data).map((p) => (
                <li key={`${p.before.id}-${p.after.id}`}>
                  <PairLine pair={p} />
                </li>
              ))}
            </Part>
          )}
          {trends.data && trends.data.length > 0 && (
            <Part title="What moved most" more={<Link to="/trends">Open Trends</Link>}>
              {trends.data.slice(0, SHOWN).map((t) => (
                <li key={t.modelId}>
                  <TrendLine trend={t} />
                </li>
              ))}
            </Part>
          )}
          <Part
            title={before === undefined ? 'What was changed last' : 'Since you were here'}
            more={<Link to="/people/log">Open the log</Link>}
          >
            {log.isError ? (
              <Trouble error={log.error} again={() => void log.refetch()} />
            ) : changes === 0 && log.data ? (
              <li className="small py-1.5">Nothing was changed.</li>
            ) : (
              log.data?.page.rows.map((d, i) => <LogLine key={i} of={d} />)
            )}
            {changes > LOG_SHOWN && <li className="small py-1.5">and {changes - LOG_SHOWN} more</li>}
          </Part>
        </div>
      </div>
    </>
  );
}

/** Scores that the server has not taken yet. What they are of is said once it answers. */
function WaitingScores({ session }: { session: number }) {
  const page = useQuery({
    queryKey: ['session', session],
    queryFn: () => value(api.GET('/api/sessions/{id}', { params: { path: { id: session } } })),
  });
  return (
    <li className="border-b border-hair-2 py-1.5">
      <Link
        to="/bench/sheet/$sessionId"
        params={{ sessionId: String(session) }}
        className="font-semibold hover:underline"
      >
        {page.data ? `Scores of ${named(page.data.configuration)}` : `Scores of session ${session}`}
      </Link>
      <span className="small block">saved on this computer, and sent as soon as the server takes them</span>
    </li>
  );
}

/** The latest of each device, so that one that is measured step by step leaves room for the others. */
const eachOnce = (pairs: readonly Pair[]) =>
  pairs.filter((p, i) => pairs.findIndex((q) => q.after.modelId === p.after.modelId) === i).slice(0, SHOWN);

const counted = (n: number, what: string) => `${n === 0 ? 'no' : n} ${what}${n === 1 ? '' : 's'}`;

function Part({ title, more, children }: { title: string; more?: ReactNode; children: ReactNode }) {
  return (
    <section>
      <div className="flex items-baseline justify-between gap-4 border-b border-hair pb-0.5">
        <h2>{title}</h2>
        {more && <span className="small [&>a]:underline">{more}</span>}
      </div>
      <ul>{children}</ul>
    </section>
  );
}
