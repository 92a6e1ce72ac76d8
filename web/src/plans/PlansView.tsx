import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { clockTime, deviceClass, DEVICE_CLASSES, duration, type DeviceClass } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Ready, Failed } from '../ui/states.tsx';
import { draftOf, EMPTY, suitesOf, type Draft } from './draft.ts';
import { HoursPart } from './HoursPart.tsx';
import { ownWords } from './own-words.ts';
import { PlanItems } from './PlanItems.tsx';
import { PlanForm } from './PlanForm.tsx';

type PlanRow = Schemas['PlanRow'];
const route = getRouteApi('/plans');
/** Minutes with which the question begins. */
const USUAL_HOURS = 180;

/** Which tests, how many runs each, how long to cool, and how long all of it takes. */
export function PlansView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const queries = useQueryClient();
  const [proposed, setProposed] = useState<Draft | null>(null);
  const { on } = search;
  const setOn = (next: DeviceClass | undefined) =>
    void navigate({ search: (s) => ({ ...s, on: next }), replace: true });
  const plans = useQuery({ queryKey: ['plans'], queryFn: () => value(api.GET('/api/plans')) });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const names = new Map((tests.data ?? []).map((t) => [t.id, t]));
  const editing = plans.data?.find((p) => p.id === (search.edit ?? search.copy));
  const close = () => {
    setProposed(null);
    void navigate({ search: (s) => ({ ...s, edit: undefined, copy: undefined, make: undefined }) });
  };
  const retire = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/plans/{id}', { params: { path: { id } } })),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['plans'] }),
  });
  useKeys([{ key: 'n', does: 'New plan', changes: true, run: () => void navigate({ search: { make: true } }) }]);
  return (
    <>
      <Opening
        title="Plans"
        sentence={
          <>
            What is carried out in a session, and how long it takes on{' '}
            <Choice
              name="Class of device"
              value={on}
              options={[
                { value: undefined as DeviceClass | undefined, label: 'any device' },
                ...DEVICE_CLASSES.map((c) => ({ value: c, label: `a ${deviceClass(c)}` })),
              ]}
              onChoose={setOn}
            >
              {on ? `a ${deviceClass(on)}` : 'any device'}
            </Choice>
            , from what the ledger knows.
          </>
        }
      >
        <button
          className="button"
          aria-pressed={search.hours !== undefined}
          onClick={() =>
            void navigate({ search: (s) => ({ ...s, hours: s.hours === undefined ? USUAL_HOURS : undefined }) })
          }
        >
          Hours at hand
        </button>
        <button data-changes className="button button-main" onClick={() => void navigate({ search: { make: true } })}>
          New plan <kbd className="pointer-coarse:hidden">n</kbd>
        </button>
      </Opening>
      {search.hours !== undefined && (
        <HoursPart
          minutes={search.hours}
          purpose={search.purpose}
          on={on}
          must={search.must ?? []}
          never={search.never ?? []}
          onForced={(must, never) =>
            void navigate({
              search: (s) => ({
                ...s,
                must: must.length > 0 ? must : undefined,
                never: never.length > 0 ? never : undefined,
              }),
              replace: true,
            })
          }
          onMinutes={(hours) => void navigate({ search: (s) => ({ ...s, hours }), replace: true })}
          onPurpose={(purpose) => void navigate({ search: (s) => ({ ...s, purpose }), replace: true })}
          onPlan={(draft) => {
            setProposed(draft);
            void navigate({ search: (s) => ({ ...s, make: true }) });
          }}
        />
      )}
      {(search.make || editing) && tests.data && (
        <PlanForm
          key={`${search.edit ?? ''}-${search.copy ?? ''}-${proposed?.name ?? ''}`}
          id={search.edit}
          start={editing ? draftOf(editing, search.copy !== undefined) : (proposed ?? EMPTY)}
          tests={tests.data}
          onDone={() => {
            close();
            void queries.invalidateQueries({ queryKey: ['plans'] });
          }}
          onCancel={close}
        />
      )}
      <Failed of={retire} />
      <Ready query={plans} what="the plans">
        {(rows) => (
          <div className="grid gap-x-10 gap-y-2 lg:grid-cols-2">
            {rows.map((p) => (
              <section key={p.id} className="border-t border-hair pt-2 pb-4">
                <h2 className="flex items-baseline gap-3">
                  {p.name}
                  <PlanTime plan={p} on={on} />
                </h2>
                <p className="small">
                  {p.runs} {p.runs === 1 ? 'run' : 'runs'} each,{' '}
                  {p.pauseMs === 0 ? 'no pause' : `${p.pauseMs / 1000} s pause`},{' '}
                  {p.stopOnFailure ? 'stops at the first failure' : 'goes on after a failure'}
                  {p.shuffleSeed !== undefined && `, in random order (seed ${p.shuffleSeed})`}
                  {p.coolByProbe && ', pauses until it is as fast as cold'}
                  {p.knownWithin !== undefined &&
                    `, up to ${p.mostRuns} until the mean is known within ${p.knownWithin} %`}
                  {p.days !== undefined && `, on ${p.days} days`}
                  {p.builtIn && ', there from the start'}
                </p>
                <PlanItems suites={suitesOf(p.items.map((item) => names.get(item.testId)))}>
                  {p.items.map((item, i) => {
                    const t = names.get(item.testId);
                    const own = ownWords(item, t);
                    return (
                      <li key={item.testId} className="flex items-baseline gap-2 border-b border-hair-2 py-0.5">
                        <span className="w-5 text-right text-ink-3">{i + 1}</span>
                        <span className={item.nice ? 'text-ink-2' : 'font-semibold'}>
                          {t?.name ?? 'a test that is gone'}
                        </span>
                        <span className="small ml-auto">{own.join(', ')}</span>
                      </li>
                    );
                  })}
                </PlanItems>
                <p className="mt-2 flex gap-4">
                  <Link data-changes to="/bench" search={{ plan: p.id }} className="small link font-semibold">
                    Take it to the bench
                  </Link>
                  <Link
                    to="/standings"
                    search={{ form: 'charts', tests: p.items.map((item) => item.testId) }}
                    className="small link"
                  >
                    Charts
                  </Link>
                  <Link data-changes to="/plans" search={{ copy: p.id }} className="small link">
                    Copy and change
                  </Link>
                  {!p.builtIn && (
                    <Link data-changes to="/plans" search={{ edit: p.id }} className="small link">
                      Change
                    </Link>
                  )}
                  {!p.builtIn && (
                    <button
                      data-changes
                      className="small link"
                      aria-label={`Retire the plan ${p.name}`}
                      onClick={() => retire.mutate(p.id)}
                    >
                      Retire
                    </button>
                  )}
                </p>
              </section>
            ))}
          </div>
        )}
      </Ready>
    </>
  );
}

function PlanTime({ plan, on }: { plan: PlanRow; on: DeviceClass | undefined }) {
  const time = useQuery({
    queryKey: ['plan-time', plan.id, on],
    queryFn: () =>
      value(
        api.GET('/api/plans/{id}/time', { params: { path: { id: plan.id }, query: on ? { deviceClass: on } : {} } }),
      ),
  });
  if (!time.data) return null;
  const { wholeMs, mustMs, guessed } = time.data;
  return (
    <span className="small font-sans font-normal">
      about <b className="font-semibold text-ink">{duration(wholeMs)}</b>; ends{' '}
      {clockTime(time.dataUpdatedAt + wholeMs)} if started now
      {mustMs < wholeMs && <>; {duration(mustMs)} without what is nice to have</>}
      {guessed > 0 && (
        <>
          ; the time of {guessed} of {plan.items.length} is estimated
        </>
      )}
    </span>
  );
}
