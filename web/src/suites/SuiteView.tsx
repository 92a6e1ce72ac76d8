import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { save } from '../export/save-file.ts';
import { count, moment, testGroup } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { isNative } from '../workloads/registry.ts';
import { CommandShown } from './CommandShown.tsx';
import { ComputedForm } from './ComputedForm.tsx';
import { howMeasured } from './how.ts';
import { JoinPart } from './JoinPart.tsx';
import { OrderPart } from './OrderPart.tsx';
import { planFile } from './plan-file.ts';
import { Repeatability } from './Repeatability.tsx';
import { RuleForm } from './RuleForm.tsx';
import { suites, type SuiteOfTests } from './suites.ts';
import { TotalForm } from './TotalForm.tsx';

const route = getRouteApi('/suites/$versionId');

/** One version of a suite: its tests, what is computed from them, how they are read from text, what they are compared with. */
export function SuiteView() {
  const id = Number(route.useParams().versionId);
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  return (
    <Ready query={tests} what="the suite">
      {(rows) => {
        const suite = suites(rows).find((s) => s.id === id);
        return suite ? (
          <Suite key={id} suite={suite} all={suites(rows)} />
        ) : (
          <Empty title="There is no such suite">
            <Link to="/suites" className="link">
              All suites
            </Link>
          </Empty>
        );
      }}
    </Ready>
  );
}

function Suite({ suite, all }: { suite: SuiteOfTests; all: readonly SuiteOfTests[] }) {
  const queries = useQueryClient();
  const [doing, setDoing] = useState<'computed' | 'total' | 'rule' | null>(null);
  const rules = useQuery({ queryKey: ['rules'], queryFn: () => value(api.GET('/api/rules')) });
  const done = () => {
    setDoing(null);
    void changed(queries, 'catalogue');
    void queries.invalidateQueries({ queryKey: ['backlog'] });
  };
  const retire = useMutation({
    mutationFn: ({ id, retired }: { id: number; retired: boolean }) =>
      value(api.POST('/api/tests/{id}/retired', { params: { path: { id } }, body: { retired } })),
    onSuccess: done,
  });
  const undeclare = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/metrics/{id}/total', { params: { path: { id } } })),
    onSuccess: done,
  });
  const backlog = useQuery({
    queryKey: ['backlog'],
    queryFn: () => value(api.GET('/api/ledger/backlog')),
    enabled: !suite.builtIn,
    refetchInterval: (query) => ((query.state.data ?? []).length > 0 ? 1_000 : false),
  });
  const retireRule = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/rules/{id}', { params: { path: { id } } })),
    onSuccess: done,
  });
  const own = (rules.data ?? []).filter((r) => r.suiteVersionId === suite.id);
  const everyName = new Map(all.flatMap((s) => s.tests.flatMap((t) => t.metrics.map((m) => [m.id, t.name] as const))));
  const names = new Map(suite.tests.flatMap((t) => t.metrics.map((m) => [m.id, t.name] as const)));
  const plan = planFile(suite.tests);
  const behind = (metric: number) => backlog.data?.find((b) => b.metricId === metric);
  const error = retire.error ?? undeclare.error ?? retireRule.error ?? rules.error;
  return (
    <>
      <Opening
        title={suite.name}
        sentence={
          suite.builtIn
            ? suite.tests.every((t) => isNative(t.key) || t.key === 'total')
              ? 'Built in: the runner carries its tests out on computers, past the browser. It cannot be changed here.'
              : 'Built in: its tests run by themselves on any device with a browser, and cannot be changed here.'
            : suite.tests.some((t) => t.command)
              ? 'A suite of your own that the runner carries out on computers whose owners agree. Its commands stay as they are, so that old scores keep their meaning; a changed one is a new version.'
              : 'A suite of your own. Its tests stay as they are, so that old scores keep their meaning; a changed test is a new version.'
        }
      >
        {!suite.builtIn && (
          <>
            <button data-changes className="button" onClick={() => setDoing('computed')}>
              Computed value
            </button>
            <button data-changes className="button" onClick={() => setDoing('total')}>
              Total
            </button>
          </>
        )}
        {!suite.builtIn && (
          <button data-changes className="button" onClick={() => setDoing('rule')}>
            Reading rule
          </button>
        )}
        {plan !== undefined && (
          <button
            className="button"
            title="For the runner on a computer that reaches no bench: fill in whose it is, and start it with --offline"
            onClick={() =>
              save(
                new Blob([plan], { type: 'application/json' }),
                `${suite.name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}-plan.json`,
              )
            }
          >
            Plan without a bench
          </button>
        )}
        <Link to="/ledger" search={{ version: suite.id }} className="button">
          Its readings
        </Link>
      </Opening>
      {doing === 'computed' && <ComputedForm suite={suite} all={all} onDone={done} onCancel={() => setDoing(null)} />}
      {doing === 'total' && <TotalForm suite={suite} onDone={done} onCancel={() => setDoing(null)} />}
      {doing === 'rule' && <RuleForm suite={suite} onDone={done} onCancel={() => setDoing(null)} />}
      {error && (
        <p role="alert" className="text-plum">
          {error.message}
        </p>
      )}
      <div className="grid gap-x-10 lg:grid-cols-[1fr_340px]">
        <section className="min-w-0">
          <h2 className="border-b border-hair pb-0.5">Tests</h2>
          {suite.tests.map((t) => (
            <div
              key={t.id}
              className={`flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-1.5 ${t.retired ? 'text-ink-3' : ''}`}
            >
              <span className="font-semibold">{t.name}</span>
              <span className="small">{testGroup(t.group)}</span>
              <span className="small ml-auto">{howMeasured(t.metrics[0]!)}</span>
              {!suite.builtIn && (
                <button
                  data-changes
                  className="small link"
                  onClick={() => retire.mutate({ id: t.id, retired: !t.retired })}
                  aria-label={`${t.retired ? 'Use again' : 'Retire'}: ${t.name}`}
                >
                  {t.retired ? 'use again' : 'retire'}
                </button>
              )}
              {t.metrics[0]?.formula !== undefined && (
                <span className="w-full">
                  {t.metrics[0].typed && 'Typed, and the total of its parts: '}
                  <code className="text-[12px] text-ink-2">{t.metrics[0].formula}</code>{' '}
                  <span className="small">
                    where{' '}
                    {Object.entries(t.metrics[0].inputs)
                      .map(([input, metric]) => `${input} is ${everyName.get(metric) ?? 'a test'}`)
                      .join(', ')}
                    {t.metrics[0].typed && (
                      <>
                        {' '}
                        <button
                          data-changes
                          className="link"
                          onClick={() => undeclare.mutate(t.metrics[0]!.id)}
                          aria-label={`${t.name} stands for itself again`}
                        >
                          it stands for itself again
                        </button>
                      </>
                    )}
                    {behind(t.metrics[0].id) && (
                      <span role="status" className="block">
                        Being computed for earlier sessions: {count(behind(t.metrics[0].id)!.done)} of{' '}
                        {count(behind(t.metrics[0].id)!.of)}
                      </span>
                    )}
                  </span>
                </span>
              )}
              {t.command && <CommandShown command={t.command} />}
              {!t.retired && t.metrics[0]?.scale === 'RATIO' && <Repeatability test={t} />}
              {t.metrics.length > 1 && (
                <span className="small w-full">
                  Also:{' '}
                  {t.metrics
                    .slice(1)
                    .map((m) => m.name.slice(t.name.length + 2))
                    .join('; ')}
                </span>
              )}
            </div>
          ))}
          <p className="small mt-1">A retired test keeps its scores; it is no longer offered, computed or ranked.</p>
        </section>
        <aside className="min-w-0">
          <OrderPart suite={suite} />
          <JoinPart suite={suite} />
          <h2 className="mt-6 border-b border-hair pb-0.5">Reading rules</h2>
          {own.length === 0 && (
            <p className="small py-1">
              {suite.builtIn
                ? 'A built-in suite needs none.'
                : 'None yet. With one, pasting what a tool printed is enough.'}
            </p>
          )}
          {own.map((r) => (
            <div key={r.id} className="border-b border-hair-2 py-1.5">
              {r.patterns.map((p) => (
                <p key={p.name} title={p.expression}>
                  <span className="font-semibold">{p.name}</span>{' '}
                  <span className="small">
                    in {p.unit}, for {names.get(p.metricId ?? 0) ?? 'another test'}
                  </span>
                </p>
              ))}
              <p className="small">
                by {r.person}, {moment(r.madeAt)}{' '}
                <button data-changes className="link" onClick={() => retireRule.mutate(r.id)}>
                  no longer use it
                </button>
              </p>
            </div>
          ))}
        </aside>
      </div>
    </>
  );
}
