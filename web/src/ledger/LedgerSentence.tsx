import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import * as format from '../format/format.ts';
import { FactCondition } from '../shelf/fact/FactCondition.tsx';
import { LEDGER_STATES, type LedgerSearch } from '../shell/search-params.ts';
import { suites } from '../suites/suites.ts';
import { Choice } from '../ui/Choice.tsx';

type State = (typeof LEDGER_STATES)[number];
const STATE_WORDS: Record<State, string> = {
  COUNTED: 'readings that count',
  SET_ASIDE: 'readings set aside',
  FAILED: 'failed runs',
  COULD_NOT_RUN: 'tests that could not run',
  STOPPED: 'stopped runs',
};

const PAGE = 200;

/** Every model, however many pages that takes. */
async function allModels() {
  const rows = [];
  for (let page = 0; ; page++) {
    const part = await value(api.GET('/api/models', { params: { query: { page, size: PAGE } } }));
    rows.push(...part.rows);
    if (part.rows.length === 0 || rows.length >= part.total) return rows;
  }
}

/** What the ledger shows, as a sentence whose parts can be chosen anew. */
export function LedgerSentence({
  search,
  say,
  total,
}: {
  search: LedgerSearch;
  say: (change: Partial<LedgerSearch>) => void;
  total: number | undefined;
}) {
  const models = useQuery({
    queryKey: ['models', 'names'],
    queryFn: allModels,
  });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')), staleTime: 60_000 });
  const people = useQuery({ queryKey: ['ledger', 'people'], queryFn: () => value(api.GET('/api/ledger/people')) });
  const configuration = useQuery({
    queryKey: ['configurations', [search.configuration]],
    queryFn: () => value(api.GET('/api/configurations', { params: { query: { ids: [search.configuration!] } } })),
    enabled: search.configuration !== undefined,
  });
  const c = configuration.data?.[0];
  const versions = suites(tests.data ?? []);
  const shownTests = (tests.data ?? []).filter(
    (t) => search.version === undefined || t.suiteVersionId === search.version,
  );
  return (
    <>
      Showing{' '}
      <Choice
        name="State"
        options={[
          { value: undefined as State | undefined, label: 'everything' },
          ...LEDGER_STATES.map((s) => ({ value: s, label: STATE_WORDS[s] })),
        ]}
        value={search.state}
        onChoose={(state) => say({ state })}
      >
        {search.state ? STATE_WORDS[search.state] : 'everything'}
      </Choice>
      {' of '}
      {search.configuration !== undefined ? (
        <button
          className="choice"
          onClick={() => say({ configuration: undefined })}
          title="Show every configuration again"
        >
          {c ? `${c.maker} ${c.model}, ${c.name}` : 'one configuration'} ×
        </button>
      ) : (
        <Choice
          name="Model"
          options={[
            { value: undefined as number | undefined, label: 'every model' },
            ...(models.data?.map((m) => ({
              value: m.id,
              label: `${m.maker} ${m.name}`,
              detail: format.deviceClass(m.deviceClass),
            })) ?? []),
          ]}
          value={search.model}
          onChoose={(model) => say({ model })}
        >
          {models.data?.filter((m) => m.id === search.model).map((m) => `${m.maker} ${m.name}`)[0] ??
            (search.model ? 'one model' : 'every model')}
        </Choice>
      )}
      {' in '}
      <Choice
        name="Suite"
        options={[
          { value: undefined as number | undefined, label: 'every suite' },
          ...versions.map((v) => ({ value: v.id, label: v.name })),
        ]}
        value={search.version}
        onChoose={(version) => say({ version, test: undefined })}
      >
        {versions.find((v) => v.id === search.version)?.name ?? 'every suite'}
      </Choice>
      {', '}
      <Choice
        name="Test"
        options={[
          { value: undefined as number | undefined, label: 'every test' },
          ...shownTests.map((t) => ({
            value: t.id,
            label: t.name,
            detail: `${format.testGroup(t.group)} · ${t.suite} ${t.version}`,
          })),
        ]}
        value={search.test}
        onChoose={(test) => say({ test })}
      >
        {tests.data?.find((t) => t.id === search.test)?.name ?? 'every test'}
      </Choice>
      {search.session !== undefined && (
        <>
          {' of '}
          <button className="choice" onClick={() => say({ session: undefined })} title="Show every session again">
            session {search.session} ×
          </button>
        </>
      )}
      {', by '}
      <Choice
        name="Person"
        options={[
          { value: undefined as string | undefined, label: 'anybody' },
          ...(people.data ?? []).map((p) => ({ value: p, label: p })),
        ]}
        value={search.person}
        onChoose={(person) => say({ person })}
      >
        {search.person ?? 'anybody'}
      </Choice>
      {', with '}
      <FactCondition fact={search.fact} relation={search.relation} value={search.value} onChange={say} />
      {', '}
      <Period from={search.from} to={search.to} onChange={say} />
      {', newest first'}
      {total !== undefined && (
        <span className="ml-2 text-[14px]">
          {format.count(total)} {total === 1 ? 'line' : 'lines'}
        </span>
      )}
    </>
  );
}

const DAY_MS = 86_400_000;

function daysAgo(days: number): string {
  return new Date(Date.now() - days * DAY_MS).toISOString().slice(0, 10);
}

/** When: a usual stretch of time, or two days of one's own. */
function Period({
  from,
  to,
  onChange,
}: {
  from: string | undefined;
  to: string | undefined;
  onChange: (change: { from: string | undefined; to: string | undefined }) => void;
}) {
  const [own, setOwn] = useState(to !== undefined);
  const usual = [
    { value: undefined as string | undefined, label: 'at any time' },
    { value: daysAgo(0), label: 'today' },
    { value: daysAgo(7), label: 'in the last 7 days' },
    { value: daysAgo(30), label: 'in the last 30 days' },
    { value: daysAgo(365), label: 'in the last year' },
  ];
  const chosen = usual.find((u) => u.value === from);
  if (own || (from !== undefined && !chosen)) {
    const input = (name: string, day: string | undefined, onDay: (day: string | undefined) => void) => (
      <input
        type="date"
        aria-label={name}
        className="field w-34 py-0"
        value={day ?? ''}
        onChange={(e) => onDay(e.target.value || undefined)}
      />
    );
    return (
      <>
        from {input('First day', from, (day) => onChange({ from: day, to }))} to{' '}
        {input('Last day', to, (day) => onChange({ from, to: day }))}{' '}
        <button
          className="choice"
          onClick={() => {
            setOwn(false);
            onChange({ from: undefined, to: undefined });
          }}
          title="At any time"
        >
          ×
        </button>
      </>
    );
  }
  return (
    <Choice
      name="When"
      options={[...usual, { value: 'own', label: 'between two days' }]}
      value={from}
      onChoose={(day) => (day === 'own' ? setOwn(true) : onChange({ from: day, to: undefined }))}
    >
      {chosen?.label ?? 'at any time'}
    </Choice>
  );
}
