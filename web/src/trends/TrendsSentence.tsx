import type { Schemas } from '../api/client.ts';
import { number, TEST_GROUPS, testGroup } from '../format/format.ts';
import type { TrendsSearch } from '../shell/search-params.ts';
import { Choice, Choices } from '../ui/Choice.tsx';
import type { Trends } from './trends.ts';

const MATTERS = [1, 2, 3, 5, 10];
/** Six lines in all: more cannot be told apart. */
const MOST_BESIDE = 5;

interface ModelRow {
  id: number;
  maker: string;
  name: string;
  configurations: number;
}

/** What is asked, in a sentence of which each part can be chosen anew. */
export function TrendsSentence({
  search,
  models,
  page,
  purposes,
  trends,
  say,
}: {
  search: TrendsSearch;
  models: readonly ModelRow[];
  page: Schemas['ModelPage'] | undefined;
  purposes: readonly { id: number; name: string }[];
  trends: Trends | undefined;
  say: (change: Partial<TrendsSearch>) => void;
}) {
  const units = page?.units.filter((u) => u.configurations.length > 0) ?? [];
  const about = page?.model ?? models.find((m) => m.id === search.model);
  const unit = search.unit ?? trends?.unitId;
  const others = besideOptions(search.model, unit, models, page);
  const beside = search.with ?? [];
  return (
    <>
      How does{' '}
      <Choice
        name="Model"
        value={search.model}
        options={models
          .filter((m) => m.configurations > 0)
          .map((m) => ({
            value: m.id,
            label: `${m.maker} ${m.name}`,
            detail: `${m.configurations} ${m.configurations === 1 ? 'configuration' : 'configurations'}`,
          }))}
        onChoose={(model) => say({ ...ANEW, model, unit: undefined })}
      >
        {about ? `${about.maker} ${about.name}` : 'a model'}
      </Choice>
      {units.length > 1 && (
        <>
          {', '}
          <Choice
            name="Unit"
            value={unit}
            options={[
              { value: undefined as number | undefined, label: 'every unit' },
              ...units.map((u) => ({ value: u.id, label: u.label })),
            ]}
            onChoose={(next) => say({ ...ANEW, unit: next })}
          >
            {units.find((u) => u.id === unit)?.label ?? 'every unit'}
          </Choice>
        </>
      )}
      {trends && others.length > 0 && (
        <>
          , beside{' '}
          <Choices
            name="Beside"
            options={others}
            values={beside}
            onChoose={(next: string[]) => {
              const some = next.slice(0, MOST_BESIDE);
              say({ with: some.length > 0 ? some : undefined, metric: undefined, lit: undefined, from: undefined });
            }}
          >
            {beside.length === 0
              ? 'no other'
              : beside.length === 1
                ? (others.find((o) => o.value === beside[0])?.label ?? 'another')
                : `${beside.length} others`}
          </Choices>
          ,
        </>
      )}{' '}
      change along{' '}
      {trends ? (
        <Choice
          name="Along"
          value={trends.along.key}
          options={trends.offered.map((o) => ({
            value: o.key,
            label: o.label.toLowerCase(),
            detail: `${o.steps} ${o.steps === 1 ? 'step' : 'steps'}`,
          }))}
          onChoose={(along) => say({ along, from: undefined })}
        >
          {trends.along.label.toLowerCase()}
        </Choice>
      ) : (
        '…'
      )}
      {trends && beside.length === 0 && trends.from.length > 1 && (
        <>
          {' '}
          from{' '}
          <Choice
            name="From"
            value={search.from}
            options={trends.from.slice(0, -1).map((s, i) => ({
              value: i === 0 ? undefined : (s.key as string | undefined),
              label: s.label,
              detail: s.configuration,
            }))}
            onChoose={(from) => say({ from })}
          >
            {trends.steps[0]?.label ?? 'the first'}
          </Choice>
        </>
      )}
      , on{' '}
      <Choice
        name="Tests"
        value={search.group}
        options={[
          { value: undefined as (typeof TEST_GROUPS)[number] | undefined, label: 'every test' },
          ...TEST_GROUPS.map((g) => ({ value: g, label: `${testGroup(g)} tests` })),
        ]}
        onChoose={(group) => say({ group })}
      >
        {search.group
          ? `${testGroup(search.group)} tests`
          : trends && beside.length === 0
            ? `${trends.lines.length} tests`
            : 'every test'}
      </Choice>
      , for{' '}
      <Choice
        name="Purpose"
        value={search.purpose}
        options={purposes.map((p, i) => ({ value: i === 0 ? undefined : (p.id as number | undefined), label: p.name }))}
        onChoose={(purpose) => say({ purpose })}
      >
        {trends?.purpose ?? 'all-round use'}
      </Choice>
      , where{' '}
      <Choice
        name="What matters"
        value={search.matters ?? 3}
        options={MATTERS.map((m) => ({ value: m, label: `${m} %` }))}
        onChoose={(matters) => say({ matters: matters === 3 ? undefined : matters })}
      >
        {`${number(search.matters ?? 3)} %`}
      </Choice>{' '}
      matters?
    </>
  );
}

/** What belongs to one device's steps, and to no other's. */
const ANEW = {
  between: undefined,
  along: undefined,
  from: undefined,
  with: undefined,
  metric: undefined,
  lit: undefined,
  side: undefined,
} satisfies Partial<TrendsSearch>;

/** Units of the same model, then other models that were measured in more than one way. */
function besideOptions(
  model: number | undefined,
  unit: number | undefined,
  models: readonly ModelRow[],
  page: Schemas['ModelPage'] | undefined,
) {
  // Every unit together is no other than each of them.
  const own = (unit === undefined ? [] : (page?.units ?? []))
    .filter((u) => u.configurations.length > 0 && u.id !== unit)
    .map((u) => ({ value: `${model}-${u.id}`, label: u.label, detail: 'another unit' }));
  return [
    ...own,
    ...models
      .filter((m) => m.id !== model && m.configurations > 1)
      .map((m) => ({
        value: String(m.id),
        label: `${m.maker} ${m.name}`,
        detail: `${m.configurations} configurations`,
      })),
  ];
}
