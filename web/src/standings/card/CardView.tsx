import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../../api/client.ts';
import { ExportMenu } from '../../export/ExportMenu.tsx';
import { classes, DEVICE_CLASSES, TEST_GROUPS, testGroup, type DeviceClass } from '../../format/format.ts';
import { named } from '../../format/named.ts';
import { useVocabulary } from '../../shelf/fact/FactEditor.tsx';
import { Opening } from '../../shell/Opening.tsx';
import type { CardSearch } from '../../shell/search-params.ts';
import { slotOf, useTable } from '../../shell/table-store.ts';
import { Choice, Choices } from '../../ui/Choice.tsx';
import { Ready } from '../../ui/states.tsx';
import { drawCard } from '../../writeup/figure/card-rows.ts';
import { figurePage } from '../../writeup/figure/figure-page.ts';
import { aboutCard } from '../../writeup/question/begin.ts';
import { WriteUpButton } from '../../writeup/question/WriteUpButton.tsx';
import { askOf, scopeKey, scopeOf } from '../question/ask.ts';
import { narrowWords } from '../question/narrow.ts';
import { NarrowPanel } from '../question/NarrowPanel.tsx';
import { ranked, suitesOf } from '../question/scopes.ts';
import { useQuantities } from '../question/StandingsSentence.tsx';
import { cardCsv, type ReportCard } from './card.ts';
import { CardSide } from './CardSide.tsx';
import { CardTable } from './CardTable.tsx';
import { useState } from 'react';

const route = getRouteApi('/shelf/configurations/$configurationId/card');
type Configuration = Schemas['ConfigurationRow'];

/** How one device does among others, test by test, on one page. */
export function CardView() {
  const id = Number(route.useParams().configurationId);
  const page = useQuery({
    queryKey: ['configuration', id],
    queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id } } })),
  });
  return (
    <Ready query={page} what="the configuration">
      {(data) => <Card key={id} configuration={data.configuration} />}
    </Ready>
  );
}

function Card({ configuration: c }: { configuration: Configuration }) {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const say = (change: Partial<CardSearch>) => void navigate({ search: { ...search, ...change } });
  const table = useTable();
  const among = search.classes ?? [c.deviceClass];
  const { beside: _, ...asked } = search;
  const standing = { ...asked, classes: [...among], per: undefined };
  const ask = askOf({ ...search, classes: [...among], per: undefined }, undefined);
  const card = useQuery({
    queryKey: ['report-card', c.id, ask],
    queryFn: ({ signal }) =>
      value(api.GET('/api/configurations/{id}/report-card', { params: { path: { id: c.id }, query: ask }, signal })),
    placeholderData: keepPreviousData,
  });
  const beside = search.beside ?? card.data?.forerunner?.id;
  const by = {
    ...(search.purpose !== undefined && { purpose: search.purpose }),
    ...(search.group !== undefined && { group: search.group }),
    ...(search.suite !== undefined && { suite: search.suite }),
    ...(search.without !== undefined && { without: search.without }),
    ...(search.take !== undefined && { take: search.take, baseTake: search.take }),
  };
  const comparison = useQuery({
    queryKey: ['comparison', 'card', beside, c.id, by],
    queryFn: () => value(api.GET('/api/compare', { params: { query: { base: beside!, with: [c.id], ...by } } })),
    enabled: beside !== undefined && beside !== c.id,
    retry: false,
  });
  const held = beside === undefined ? undefined : comparison.data;
  return (
    <>
      <Opening
        title={`${c.maker} ${c.model}`}
        tab={`Report card, ${named(c)}`}
        sentence={<CardSentence configuration={c} card={card.data} search={search} among={among} say={say} />}
      >
        <button className="button" onClick={() => window.print()}>
          Print
        </button>
        {card.data && card.data.rows.length > 0 && (
          <>
            <WriteUpButton beginning={() => aboutCard(c, ask, beside)} />
            <ExportMenu
              name={`report card ${named(c)}`}
              csv={() => cardCsv(card.data, held)}
              draw={(paint, font) => {
                const drawn = drawCard(card.data, held)!;
                return figurePage(drawn, drawn.caption, paint, font);
              }}
            />
          </>
        )}
        <Link to="/shelf/configurations/$configurationId" params={{ configurationId: String(c.id) }} className="button">
          Its facts
        </Link>
      </Opening>
      <Ready query={card} what="the report card">
        {(data) =>
          data.rows.length === 0 ? (
            <p className="py-3">
              Nothing that is asked for was measured on {named(c)} yet.{' '}
              <Link data-changes to="/bench/by-hand" search={{ configuration: c.id }} className="link">
                Type scores
              </Link>
              , or bring it to the{' '}
              <Link to="/bench" className="link">
                bench
              </Link>
              .
            </p>
          ) : (
            <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[250px_minmax(0,1fr)]">
              <CardSide card={data} comparison={held} charts={{ ...standing, form: 'charts', lit: c.id }} by={by} />
              <CardTable
                card={data}
                who={others(data.among, among)}
                comparison={held}
                slot={slotOf(table, c.id)}
                standing={standing}
              />
            </div>
          )
        }
      </Ready>
    </>
  );
}

/** "14 laptops", "1 other device". */
function others(count: number, among: readonly DeviceClass[]): string {
  const one = among.length === 1 ? classes(among) : 'devices';
  return `${count} other ${count === 1 ? one.replace(/e?s$/, (end) => (end === 'es' ? 'e' : '')) : one}`;
}

function CardSentence({
  configuration: c,
  card,
  search,
  among,
  say,
}: {
  configuration: Configuration;
  card: ReportCard | undefined;
  search: CardSearch;
  among: readonly DeviceClass[];
  say: (change: Partial<CardSearch>) => void;
}) {
  const [narrowing, setNarrowing] = useState(false);
  const purposes = useQuery({ queryKey: ['purposes'], queryFn: () => value(api.GET('/api/purposes')) });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')), staleTime: 60_000 });
  const ask = askOf({ classes: [...among] }, undefined);
  const standings = useQuery({
    queryKey: ['standings', ask],
    queryFn: ({ signal }) => value(api.GET('/api/standings', { params: { query: ask }, signal })),
    retry: false,
  });
  const quantities = useQuantities();
  const vocabulary = useVocabulary();
  const labels = new Map((vocabulary.data ?? []).map((v) => [v.key, v.label]));
  const currency = quantities.data?.find((q) => q.key === 'price')?.unit ?? '';
  const purpose = purposes.data?.find((p) => p.id === search.purpose) ?? purposes.data?.[0];
  const tested = ranked(tests.data);
  const scopes = [
    { value: undefined as string | undefined, label: 'every test it ran', detail: '' },
    ...TEST_GROUPS.filter((g) => tested.some((t) => t.group === g)).map((g) => ({
      value: `group:${g}` as string | undefined,
      label: `${testGroup(g)} tests`,
      detail: 'a group',
    })),
    ...suitesOf(tested).map((s) => ({
      value: `suite:${s.id}` as string | undefined,
      label: s.name,
      detail: 'a suite',
    })),
  ];
  const held = [
    ...(card?.forerunner ? [card.forerunner] : []),
    ...(standings.data?.rows ?? []).map((r) => r.configuration),
  ].filter((o, i, all) => o.id !== c.id && all.findIndex((x) => x.id === o.id) === i);
  const beside = held.find((o) => o.id === (search.beside ?? card?.forerunner?.id));
  return (
    <>
      {c.name}. How it does among{' '}
      <Choices
        name="Class of device"
        options={DEVICE_CLASSES.map((d) => ({ value: d, label: d.toLowerCase() }))}
        values={among}
        onChoose={(next: DeviceClass[]) => say({ classes: next.length > 0 ? next : [...DEVICE_CLASSES] })}
      >
        {card && among.length === 1 ? others(card.among, among) : classes(among)}
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
      , on{' '}
      <Choice name="Tests" options={scopes} value={scopeKey(search)} onChoose={(next) => say(scopeOf(next))}>
        {scopes.find((s) => s.value === scopeKey(search))?.label ?? card?.scope ?? 'every test it ran'}
      </Choice>
      , for{' '}
      <Choice
        name="Purpose"
        options={purposes.data?.map((p) => ({ value: p.id, label: p.name })) ?? []}
        value={purpose?.id}
        onChoose={(next) => say({ purpose: next === purposes.data?.[0]?.id ? undefined : next })}
      >
        {purpose?.name ?? '…'}
      </Choice>
      , beside{' '}
      <Choice
        name="Held against"
        options={held.map((o) => ({
          value: o.id as number | undefined,
          label: `${o.maker} ${o.model}`,
          detail: o.id === card?.forerunner?.id ? `${o.name}, the one before it` : o.name,
        }))}
        value={beside?.id}
        onChoose={(next) => say({ beside: next === card?.forerunner?.id ? undefined : next })}
      >
        {beside
          ? beside.id === card?.forerunner?.id
            ? `the one before it, ${beside.model}`
            : named(beside)
          : 'nobody'}
      </Choice>
      .
      <NarrowPanel open={narrowing} onClose={() => setNarrowing(false)} search={search} say={say} currency={currency} />
    </>
  );
}
