import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import { Opening } from '../shell/Opening.tsx';
import { suites } from '../suites/suites.ts';
import { Choice } from '../ui/Choice.tsx';
import { Empty, Ready, Failed } from '../ui/states.tsx';

const route = getRouteApi('/bench/by-hand');

/** A session that a person carries out: which tests, how many runs, under which conditions. */
export function NewSessionView() {
  const { configuration, plan } = route.useSearch();
  const page = useQuery({
    queryKey: ['configuration', configuration],
    queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id: configuration! } } })),
    enabled: configuration !== undefined,
  });
  if (configuration === undefined)
    return (
      <>
        <Opening title="Type scores" sentence="Scores that you read off a screen, session by session." />
        <Empty title="Which configuration?">Open one on the shelf and choose "Type scores" there.</Empty>
      </>
    );
  return (
    <Ready query={page} what="the configuration">
      {(data) => <Form page={data} planned={plan} />}
    </Ready>
  );
}

function Form({ page, planned }: { page: Schemas['ConfigurationPage']; planned: number | undefined }) {
  const c = page.configuration;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const lists = useQuery({ queryKey: ['checklists'], queryFn: () => value(api.GET('/api/checklists')) });
  const known = page.facts.find((f) => f.key === 'power.source')?.value;
  const draft = useDraft<{
    chosen: readonly number[];
    runs: number;
    planId: number | undefined;
    mains: string;
    room: string;
    recording: boolean;
    otherWork: boolean;
    remarks: string;
    ticked: readonly string[];
  }>(`session on ${c.id}, plan ${planned ?? 'none'}`, {
    chosen: [],
    runs: 3,
    planId: planned,
    mains: known === 'battery' ? 'battery' : known === 'mains' ? 'mains' : '',
    room: page.facts.find((f) => f.key === 'room.temperature')?.value ?? '',
    recording: false,
    otherWork: false,
    remarks: '',
    ticked: [] as readonly string[],
  });
  const [chosen, setChosen] = draft.field('chosen');
  const [runs, setRuns] = draft.field('runs');
  const plans = useQuery({ queryKey: ['plans'], queryFn: () => value(api.GET('/api/plans')) });
  const [planId, setPlanId] = draft.field('planId');
  const plan = plans.data?.find((p) => p.id === planId);
  const [mains, setMains] = draft.field('mains');
  const [room, setRoom] = draft.field('room');
  const [recording, setRecording] = draft.field('recording');
  const [otherWork, setOtherWork] = draft.field('otherWork');
  const [remarks, setRemarks] = draft.field('remarks');
  const [ticked, setTicked] = draft.field('ticked');
  const groups = suites((tests.data ?? []).filter((t) => !t.retired && t.metrics.some((m) => m.formula === undefined)));
  const byHand = new Set(groups.filter((s) => !s.builtIn).flatMap((s) => s.tests.map((t) => t.id)));
  const names = groups.filter((s) => s.tests.some((t) => chosen.includes(t.id))).map((s) => s.name);
  // However they were ticked, the sheet has them in the order in which their suite lists them.
  const listed = groups.flatMap((s) => s.tests.map((t) => t.id)).filter((id) => chosen.includes(id));
  const take = (id: number | undefined) => {
    const next = plans.data?.find((p) => p.id === id);
    setPlanId(id);
    if (!next) return;
    setChosen(next.items.map((i) => i.testId).filter((i) => byHand.has(i)));
    setRuns(next.runs);
  };
  const open = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/sessions', {
          body: {
            configurationId: c.id,
            name: (plan?.name ?? names.join(', ')).slice(0, 120),
            ...(plan
              ? {
                  asPlanned: plan.items
                    .filter((i) => chosen.includes(i.testId))
                    .map((i) => ({
                      testId: i.testId,
                      ...(i.runs === undefined ? {} : { runs: i.runs }),
                      ...(i.todo === undefined ? {} : { todo: i.todo }),
                    })),
                }
              : {}),
            testIds: plan ? [...chosen] : listed,
            runs,
            recording,
            otherWork,
            ticked: [...ticked],
            ...(mains ? { onMains: mains === 'mains' } : {}),
            ...(room.trim() ? { roomTemperature: room } : {}),
            ...(remarks.trim() ? { remarks } : {}),
          },
        }),
      ),
    onSuccess: (sheet) => {
      draft.forget();
      for (const queryKey of [['configuration', c.id], ['model']]) void queries.invalidateQueries({ queryKey });
      queries.setQueryData(['sheet', sheet.session.id], sheet);
      void navigate({ to: '/bench/sheet/$sessionId', params: { sessionId: String(sheet.session.id) }, replace: true });
    },
  });
  const toggle = (ids: readonly number[]) =>
    setChosen(
      ids.every((id) => chosen.includes(id))
        ? chosen.filter((id) => !ids.includes(id))
        : [...chosen, ...ids.filter((id) => !chosen.includes(id))],
    );
  const checks = lists.data?.find((l) => l.deviceClass === c.deviceClass)?.items ?? [];
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        open.mutate();
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey) && chosen.length > 0) open.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <Opening
        title="Scores by hand"
        sentence={
          <>
            A session of the {c.maker} {c.model}, {c.unit}, {c.name}. Carrying out{' '}
            <Choice
              name="Plan"
              options={[
                { value: undefined as number | undefined, label: 'what is chosen below' },
                ...(plans.data ?? [])
                  .filter((p) => p.items.some((i) => byHand.has(i.testId)))
                  .map((p) => ({
                    value: p.id,
                    label: p.name,
                    detail: `${p.items.filter((i) => byHand.has(i.testId)).length} tests by hand`,
                  })),
              ]}
              value={planId}
              onChoose={take}
            >
              {plan?.name ?? 'what is chosen below'}
            </Choice>
            ; every score is typed on the next page.
          </>
        }
      >
        <button data-changes className="button button-main" disabled={chosen.length === 0 || open.isPending}>
          Start the session
        </button>
        <button type="button" className="button" onClick={() => window.history.back()}>
          Cancel
        </button>
      </Opening>
      <Failed of={open} />
      <div className="grid gap-x-10 lg:grid-cols-[1fr_360px]">
        <Ready query={tests} what="the suites">
          {() => (
            <div className="gap-x-8 sm:columns-2">
              {groups.map((s) => (
                <fieldset key={s.name} className="mb-4 break-inside-avoid">
                  <legend className="w-full border-b border-hair pb-0.5">
                    <label className="flex items-baseline gap-2 font-title text-[16px] font-medium">
                      <input
                        type="checkbox"
                        className="accent-leaf"
                        checked={s.tests.every((t) => chosen.includes(t.id))}
                        onChange={() => toggle(s.tests.map((t) => t.id))}
                      />
                      {s.name}
                    </label>
                  </legend>
                  {s.tests.map((t) => (
                    <label key={t.id} className="flex items-baseline gap-2 border-b border-hair-2 py-1 pl-4">
                      <input
                        type="checkbox"
                        className="accent-leaf"
                        checked={chosen.includes(t.id)}
                        onChange={() => toggle([t.id])}
                      />
                      {t.name}
                    </label>
                  ))}
                </fieldset>
              ))}
            </div>
          )}
        </Ready>
        <aside>
          <h2 className="border-b border-hair pb-0.5">Conditions</h2>
          <label className="mt-2 block">
            <span className="small">Runs each; three is usual, one proves nothing</span>
            <input
              className="field"
              type="number"
              min={1}
              max={30}
              value={runs}
              onChange={(e) => setRuns(Math.min(30, Math.max(1, Number(e.target.value) || 1)))}
            />
          </label>
          <label className="mt-2 block">
            <span className="small">Power</span>
            <select className="field" value={mains} onChange={(e) => setMains(e.target.value)}>
              <option value="">not noted</option>
              <option value="mains">plugged in</option>
              <option value="battery">on battery</option>
            </select>
          </label>
          <label className="mt-2 block">
            <span className="small">Room temperature in °C</span>
            <input
              className="field"
              value={room}
              maxLength={40}
              placeholder="21.5"
              onChange={(e) => setRoom(e.target.value)}
            />
          </label>
          <label className="mt-2 flex items-baseline gap-2">
            <input
              type="checkbox"
              className="accent-leaf"
              checked={recording}
              onChange={(e) => setRecording(e.target.checked)}
            />
            The screen is being recorded, which costs speed
          </label>
          <label className="mt-1 flex items-baseline gap-2">
            <input
              type="checkbox"
              className="accent-leaf"
              checked={otherWork}
              onChange={(e) => setOtherWork(e.target.checked)}
            />
            Other work is going on at the same time
          </label>
          <label className="mt-2 block">
            <span className="small">Remarks</span>
            <textarea
              className="field"
              rows={2}
              maxLength={1000}
              value={remarks}
              onChange={(e) => setRemarks(e.target.value)}
            />
          </label>
          {checks.length > 0 && (
            <fieldset className="mt-4">
              <legend className="font-title text-[17px] font-medium">Before the first run</legend>
              {checks.map((text) => (
                <label key={text} className="flex items-baseline gap-2 border-b border-hair-2 py-1">
                  <input
                    type="checkbox"
                    className="accent-leaf"
                    checked={ticked.includes(text)}
                    onChange={() =>
                      setTicked(ticked.includes(text) ? ticked.filter((t) => t !== text) : [...ticked, text])
                    }
                  />
                  {text}
                </label>
              ))}
            </fieldset>
          )}
        </aside>
      </div>
    </form>
  );
}
