import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { TEST_GROUPS, testGroup, type TestGroup } from '../../format/format.ts';

export type Weighing = Schemas['PurposeWeighing'];
type Purpose = Schemas['PurposeRow'];
const MOST = 10;
const MOST_INSIDE = 5;

interface Props {
  purpose: Purpose;
  /** As it is stored. */
  weighing: Weighing;
  onTry: (next: Weighing) => void;
  onDone: () => void;
  onSaved: (id: number) => void;
}

/** The weights of a purpose, to move while the order follows. */
export function PurposeEditor({ purpose, weighing: stored, onTry, onDone, onSaved }: Props) {
  const queries = useQueryClient();
  const [opened, setOpened] = useState<TestGroup | null>(null);
  const draft = useDraft<{ name: string; weighing: Weighing }>(`weights of purpose ${purpose.id}`, {
    name: purpose.usual ? '' : purpose.name,
    weighing: stored,
  });
  const [name, setName] = draft.field('name');
  const { weighing } = draft.value;
  // The order follows what is typed, also what was typed on an earlier visit.
  const shown = useRef(stored);
  useEffect(() => {
    if (shown.current === weighing) return;
    shown.current = weighing;
    onTry(weighing);
  }, [weighing, onTry]);
  const onWeigh = (next: Weighing) => draft.set({ ...draft.value, weighing: next });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')), staleTime: 60_000 });
  const changed = () => void queries.invalidateQueries({ queryKey: ['purposes'] });
  const make = useMutation({
    mutationFn: () => value(api.POST('/api/purposes', { body: { name, weighing } })),
    onSuccess: (made) => {
      draft.forget();
      changed();
      onSaved(made.id);
    },
  });
  const change = useMutation({
    mutationFn: () =>
      value(api.PUT('/api/purposes/{id}', { params: { path: { id: purpose.id } }, body: { name, weighing } })),
    onSuccess: (made) => {
      draft.forget();
      changed();
      void queries.invalidateQueries({ queryKey: ['standings'] });
      onSaved(made.id);
    },
  });
  const retire = useMutation({
    mutationFn: () => value(api.DELETE('/api/purposes/{id}', { params: { path: { id: purpose.id } } })),
    onSuccess: () => {
      changed();
      onDone();
    },
  });
  const total = Object.values(weighing.groups).reduce((sum, w) => sum + w, 0);
  const counted = (tests.data ?? []).filter((t) => !t.retired && t.metrics.some((m) => m.main && m.scale === 'RATIO'));
  const failed = make.error ?? change.error ?? retire.error;
  return (
    <aside
      aria-label="Weights"
      className="w-[310px] shrink-0 overflow-y-auto border-l border-hair pl-4 max-md:w-full max-md:border-l-0 max-md:pl-0"
    >
      <div className="flex items-baseline justify-between">
        <h2>Weights</h2>
        <button className="small link" onClick={onDone}>
          Close
        </button>
      </div>
      <p className="small mb-2">
        Only proportions count. The order follows as you move them; others see it once you save it.
      </p>
      <DraftNote draft={draft} />
      {TEST_GROUPS.filter((g) => counted.some((t) => t.group === g) || (weighing.groups[g] ?? 0) > 0).map((g) => (
        <div key={g} className="border-b border-hair-2 py-1">
          <div className="flex items-center gap-1">
            <button
              className="w-4 shrink-0 text-ink-3"
              aria-expanded={opened === g}
              aria-label={`Suites and tests of ${testGroup(g)}`}
              onClick={() => setOpened(opened === g ? null : g)}
            >
              {opened === g ? '▾' : '▸'}
            </button>
            <Slider
              label={testGroup(g)}
              now={weighing.groups[g] ?? 0}
              most={MOST}
              share={total > 0 ? (weighing.groups[g] ?? 0) / total : 0}
              onChange={(w) => onWeigh({ ...weighing, groups: { ...weighing.groups, [g]: w } })}
            />
          </div>
          {opened === g && (
            <Inside tests={counted.filter((t) => t.group === g)} weighing={weighing} onWeigh={onWeigh} />
          )}
        </div>
      ))}
      <form
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <label className="small block">
          Name
          <input
            className="field"
            value={name}
            maxLength={100}
            placeholder="what it is used for"
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <div className="mt-2 flex flex-wrap gap-2">
          {!purpose.usual && (
            <button
              type="button"
              className="button button-main"
              disabled={change.isPending || name.trim() === ''}
              onClick={() => change.mutate()}
            >
              Save
            </button>
          )}
          <button
            className={purpose.usual ? 'button button-main' : 'button'}
            disabled={make.isPending || name.trim() === '' || (!purpose.usual && name.trim() === purpose.name)}
          >
            Save as a new purpose
          </button>
          {!purpose.usual && (
            <button
              type="button"
              className="button"
              disabled={retire.isPending}
              onClick={() => {
                if (window.confirm(`Take “${purpose.name}” out? Nothing that was measured is touched.`))
                  retire.mutate();
              }}
            >
              Remove
            </button>
          )}
        </div>
        {failed && (
          <p role="alert" className="mt-1 text-plum">
            {failed.message}
          </p>
        )}
      </form>
    </aside>
  );
}

function Inside({
  tests,
  weighing,
  onWeigh,
}: {
  tests: readonly Schemas['TestRow'][];
  weighing: Weighing;
  onWeigh: (next: Weighing) => void;
}) {
  const suites = [...new Map(tests.map((t) => [t.metrics[0]!.suiteId, t.suite])).entries()];
  return (
    <div className="mt-1 pl-5">
      {suites.map(([id, suite]) => (
        <div key={id} className="mb-1">
          {suites.length > 1 && (
            <Slider
              label={suite}
              now={weighing.suites[id] ?? 1}
              most={MOST_INSIDE}
              onChange={(w) => onWeigh({ ...weighing, suites: { ...weighing.suites, [id]: w } })}
            />
          )}
          <div className={suites.length > 1 ? 'pl-3' : ''}>
            {tests
              .filter((t) => t.metrics[0]!.suiteId === id)
              .map((t) => (
                <Slider
                  key={t.id}
                  label={t.name}
                  now={weighing.tests[t.id] ?? 1}
                  most={MOST_INSIDE}
                  onChange={(w) => onWeigh({ ...weighing, tests: { ...weighing.tests, [t.id]: w } })}
                />
              ))}
          </div>
        </div>
      ))}
    </div>
  );
}

function Slider({
  label,
  now,
  most,
  share,
  onChange,
}: {
  label: string;
  now: number;
  most: number;
  share?: number;
  onChange: (weight: number) => void;
}) {
  return (
    <label className="grid min-w-0 flex-1 grid-cols-[1fr_90px_38px] items-center gap-2">
      <span className="truncate" title={label}>
        {label}
      </span>
      <input
        type="range"
        min={0}
        max={Math.max(most, now)}
        step={0.5}
        value={now}
        className="accent-(--leaf)"
        onChange={(e) => onChange(Number(e.target.value))}
      />
      <span className="small text-right">{share === undefined ? now : `${Math.round(100 * share)} %`}</span>
    </label>
  );
}
