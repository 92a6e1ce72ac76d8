import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import {
  classes,
  DEVICE_CLASSES,
  TEST_GROUPS,
  testGroup,
  unitName,
  type DeviceClass,
  type TestGroup,
} from '../../format/format.ts';
import { useVocabulary } from '../../shelf/fact/FactEditor.tsx';
import type { StandingsSearch } from '../../shell/search-params.ts';
import { Choice, Choices } from '../../ui/Choice.tsx';
import { scopeKey, scopeOf, type Standings } from './ask.ts';
import { byDifferences } from './held-against.ts';
import { narrowWords } from './narrow.ts';
import { NarrowPanel } from './NarrowPanel.tsx';
import { ranked, suitesOf } from './scopes.ts';
import { TAKES, takeWords } from '../../format/takes.ts';
import { named } from '../../format/named.ts';

interface Props {
  search: StandingsSearch;
  say: (change: Partial<StandingsSearch>) => void;
  data: Standings | undefined;
}

/** What is ranked, in one sentence; its underlined parts change it. */
export function StandingsSentence({ search, say, data }: Props) {
  const [narrowing, setNarrowing] = useState(false);
  const purposes = useQuery({ queryKey: ['purposes'], queryFn: () => value(api.GET('/api/purposes')) });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')), staleTime: 60_000 });
  const quantities = useQuantities();
  const vocabulary = useVocabulary();
  const labels = new Map((vocabulary.data ?? []).map((v) => [v.key, v.label]));
  const currency = quantities.data?.find((q) => q.key === 'price')?.unit ?? '';
  const purpose = purposes.data?.find((p) => p.id === search.purpose) ?? purposes.data?.[0];
  const chosen = search.classes ?? [];
  const one = search.metric !== undefined;

  const tested = ranked(tests.data);
  const scopes = [
    {
      value: undefined as string | undefined,
      label: scopeKey(search) === undefined && data ? data.scope : 'every test',
      detail: 'weighted for the purpose',
    },
    ...(data?.common || search.every
      ? [
          {
            value: 'every' as string | undefined,
            label: search.every && data ? data.scope : 'every test',
            detail: 'also those that few have run',
          },
        ]
      : []),
    ...TEST_GROUPS.filter((g) => tested.some((t) => t.group === g)).map((g) => ({
      value: `group:${g}` as string | undefined,
      label: `${testGroup(g)} tests`,
      detail: 'a group',
    })),
    ...suitesOf(tested).map((s) => ({
      value: `suite:${s.id}` as string | undefined,
      label: s.name,
      detail: `a suite of ${s.tests} ${s.tests === 1 ? 'test' : 'tests'}`,
    })),
    ...tested
      .filter((t) => t.metrics.filter((m) => m.main).length > 1)
      .map((t) => ({
        value: `test:${t.id}` as string | undefined,
        label: t.name,
        detail: `a test of ${t.suite} with several values`,
      })),
    ...(tests.data ?? [])
      .filter((t) => !t.retired)
      .flatMap((t) =>
        t.metrics.filter(canBeRanked).map((m) => ({
          value: `metric:${m.id}` as string | undefined,
          label: t.metrics.length > 1 ? m.name : t.name,
          detail: `${testGroup(t.group)} · ${t.suite} ${t.version} · ${unitName(m.unit)}${m.scale === 'DIFFERENCE' ? ', by differences' : ''}`,
        })),
      ),
  ];
  const scope = scopeKey(search);
  const per = quantities.data?.filter((q) => q.divides) ?? [];
  const perKey = (key: string) => key.replace(/^fact:/, '');
  const bases =
    data?.rows
      .filter((r) => r.status !== 'NOT_LINKED')
      .map((r) => ({
        value: r.configuration.id,
        label: `${r.configuration.maker} ${r.configuration.model}`,
        detail: r.configuration.name,
      })) ?? [];
  return (
    <>
      Ranking{' '}
      <Choices
        name="Class of device"
        options={DEVICE_CLASSES.map((c) => ({ value: c, label: c.toLowerCase() }))}
        values={chosen}
        onChoose={(next: DeviceClass[]) => say({ classes: next.length > 0 ? next : undefined })}
      >
        {classes(chosen)}
      </Choices>
      {', '}
      <button
        className="choice"
        aria-haspopup="dialog"
        aria-label={`Filters: ${narrowWords(search, labels, currency)}`}
        onClick={() => setNarrowing(true)}
      >
        {narrowWords(search, labels, currency)}
      </button>
      {!one && (
        <>
          , for{' '}
          <Choice
            name="Purpose"
            options={
              purposes.data?.map((p) => ({ value: p.id, label: p.name, detail: weightsInWords(p.weights) })) ?? []
            }
            value={purpose?.id}
            onChoose={(next) => say({ purpose: next === purposes.data?.[0]?.id ? undefined : next })}
          >
            {purpose?.name ?? '…'}
          </Choice>
        </>
      )}
      {one ? ', by ' : ', over '}
      <Choice name="Test" options={scopes} value={scope} onChoose={(next) => say(scopeOf(next))}>
        {scopes.find((s) => s.value === scope)?.label ?? data?.scope ?? 'every test'}
      </Choice>
      {((per.length > 0 && !byDifferences(data?.metric)) || search.per !== undefined) && (
        <>
          {', '}
          <Choice
            name="Divided by"
            value={search.per}
            options={[
              { value: undefined as string | undefined, label: 'as measured' },
              ...per.map((q) => ({
                value: perKey(q.key),
                label: data?.metric?.direction === 'LESS_IS_BETTER' ? `against ${q.label}` : `per ${q.label}`,
                detail: q.unit,
              })),
            ]}
            onChoose={(next) =>
              // Divided, a time would look the better the dearer it is; its plot shows both.
              next !== undefined && data?.metric?.direction === 'LESS_IS_BETTER'
                ? say({ form: 'against', against: per.find((q) => perKey(q.key) === next)!.key })
                : say({ per: next })
            }
          >
            {search.per === undefined
              ? 'as measured'
              : `per ${per.find((q) => perKey(q.key) === search.per)?.label ?? search.per}`}
          </Choice>
        </>
      )}
      {(search.take !== undefined || (data?.notCounted ?? 0) > 0) && (
        <>
          {', '}
          <Choice
            name="Sessions"
            value={search.take ?? 'USUAL'}
            options={TAKES.map((t) => ({ value: t, label: takeWords(t) }))}
            onChoose={(next) => say({ take: next === 'USUAL' ? undefined : next })}
          >
            {takeWords(search.take ?? 'USUAL')}
          </Choice>
        </>
      )}
      , against{' '}
      <Choice
        name="Base"
        options={[{ value: 'typical', label: 'the typical one', detail: 'the median of those placed' }, ...bases]}
        value={search.typical ? 'typical' : data?.base?.id}
        onChoose={(next) =>
          say(next === 'typical' ? { typical: true, base: undefined } : { typical: undefined, base: next as number })
        }
      >
        {search.typical ? 'the typical one' : data?.base ? named(data.base) : '…'}
      </Choice>
      {byDifferences(data?.metric) ? '.' : ' = 100.'}
      <NarrowPanel open={narrowing} onClose={() => setNarrowing(false)} search={search} say={say} currency={currency} />
    </>
  );
}

/** What standings can be held against, and scores divided by. */
export function useQuantities() {
  return useQuery({
    queryKey: ['standing-quantities'],
    queryFn: () => value(api.GET('/api/standings/quantities')),
    staleTime: 60_000,
  });
}

/** Whether a metric has an order with steps: a check is passed or not, and how often a curve dents is nobody's question. */
function canBeRanked(m: Schemas['MetricRow']): boolean {
  return m.scale === 'RATIO' || (m.series === undefined && m.kind !== 'CHECK' && m.kind !== 'CHOICE');
}

function weightsInWords(weights: Record<string, number>): string {
  const entries = Object.entries(weights).filter(([, w]) => w > 0);
  if (new Set(entries.map(([, w]) => w)).size <= 1 && entries.length === TEST_GROUPS.length)
    return 'the same weight for each group of tests';
  return entries.map(([group, w]) => `${testGroup(group as TestGroup)} ${w}`).join(' · ');
}
