import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useDeferredValue, useRef, useState } from 'react';
import { api, value, Problem } from '../api/client.ts';
import { ExportMenu } from '../export/ExportMenu.tsx';
import { day } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { FirstSteps } from '../shell/FirstSteps.tsx';
import { Opening } from '../shell/Opening.tsx';
import { FORMS } from '../shell/search-params.ts';
import { slotOf, useTable } from '../shell/table-store.ts';
import { figurePage } from '../writeup/figure/figure-page.ts';
import { drawStanding } from '../writeup/figure/standing-rows.ts';
import { aboutStanding } from '../writeup/question/begin.ts';
import { WriteUpButton } from '../writeup/question/WriteUpButton.tsx';
import { Empty, Loading, Trouble } from '../ui/states.tsx';
import { AgainstPlot } from './plot/AgainstPlot.tsx';
import { askOf, type Standings } from './question/ask.ts';
import { toggled } from '../format/parts.ts';
import { ChartsPart } from './ChartsPart.tsx';
import { FirmTop } from './FirmTop.tsx';
import { Foot } from './Foot.tsx';
import { GenerationsPart } from './GenerationsPart.tsx';
import { OneTestOnly } from './OneTestOnly.tsx';
import { PublishedPart } from './PublishedPart.tsx';
import { PurposeEditor, type Weighing } from './question/PurposeEditor.tsx';
import { StandingsSentence } from './question/StandingsSentence.tsx';
import { StandingsTable } from './list/StandingsTable.tsx';
import { standingsCsv, standingsHtml } from './list/take-standings.ts';
import { SaveStanding } from './SaveStanding.tsx';
import { LIST_COLUMNS, PrintableList } from './list/PrintableList.tsx';
import { ColumnsChoice } from '../ui/ColumnsChoice.tsx';
import { WhyPanel } from './WhyPanel.tsx';

const route = getRouteApi('/standings');
const FORM_WORDS = {
  rails: 'Rails',
  list: 'List',
  charts: 'Charts',
  against: 'Best value',
  lines: 'Generations',
} as const;

/** Where a model lands among everything tested. */
export function StandingsView() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const table = useTable();
  const opening = useRef<HTMLDivElement>(null);
  const [weighing, setWeighing] = useState<Weighing | null>(null);
  // The sentence wins; where it names no base, the table's base is taken.
  const ask = askOf(search, table.base ?? undefined);
  const say = (change: Partial<typeof search>) => void navigate({ search: { ...search, ...change } });
  const leaveOut = (key: string) => say({ without: toggled(search.without, key) });
  const form = search.form ?? 'rails';
  const highlighted = search.lit ?? table.lit ?? table.base ?? undefined;

  const purposes = useQuery({ queryKey: ['purposes'], queryFn: () => value(api.GET('/api/purposes')) });
  const purpose = purposes.data?.find((p) => p.id === search.purpose) ?? purposes.data?.[0];
  const standings = useQuery({
    queryKey: ['standings', ask],
    queryFn: ({ signal }) => value(api.GET('/api/standings', { params: { query: ask }, signal })),
    placeholderData: keepPreviousData,
  });
  const weighed = useDeferredValue(search.weigh && search.metric === undefined ? weighing : null);
  const tried = useQuery({
    queryKey: ['standings-tried', ask, weighed],
    queryFn: ({ signal }) =>
      value(api.POST('/api/standings/tried', { params: { query: ask }, body: weighed!, signal })),
    enabled: weighed !== null,
    placeholderData: keepPreviousData,
  });
  const firmness = useQuery({
    queryKey: ['firmness', ask],
    queryFn: ({ signal }) => value(api.GET('/api/standings/firmness', { params: { query: ask }, signal })),
    enabled: search.weigh === true && weighed === null && search.metric === undefined,
  });
  const edit = (open: boolean) => {
    setWeighing(null);
    say({ weigh: open ? true : undefined, form: undefined });
  };
  useKeys([
    {
      key: 'v',
      does: 'Another form: rails, list, charts, best value, generations',
      run: () => {
        const next = FORMS[(FORMS.indexOf(form) + 1) % FORMS.length]!;
        say({ form: next === 'rails' ? undefined : next });
      },
    },
    { key: 'p', does: 'Weigh: move the purpose’s weights and see the order follow', run: () => edit(!search.weigh) },
  ]);

  const data = weighed !== null && tried.data ? tried.data.standings : standings.data;
  const shownFirmness = weighed !== null ? tried.data?.firmness : firmness.data;
  const trouble = standings.error ?? (weighed !== null ? tried.error : null);
  return (
    <div className="flex min-h-[420px] flex-col md:h-full">
      <div ref={opening}>
        <Opening title="Standings" sentence={<StandingsSentence search={search} say={say} data={standings.data} />}>
          <div role="group" aria-label="Form" className="flex gap-2">
            {FORMS.map((f) => (
              <button
                key={f}
                className={`small px-1 pb-0.5 ${form === f ? 'border-b-2 border-gold font-semibold text-ink' : 'link'}`}
                aria-pressed={form === f}
                onClick={() => say({ form: f === 'rails' ? undefined : f, weigh: undefined })}
              >
                {FORM_WORDS[f]}
              </button>
            ))}
          </div>
          {search.metric === undefined && form === 'rails' && (
            <button
              data-changes
              className="button"
              aria-pressed={search.weigh === true}
              onClick={() => edit(!search.weigh)}
            >
              Weigh
            </button>
          )}
          {form === 'list' && <ColumnsChoice list="standings" columns={LIST_COLUMNS} />}
          {form === 'list' && (
            <button className="button" onClick={() => window.print()}>
              Print
            </button>
          )}
          {data && data.rows.length > 0 && (
            <WriteUpButton
              beginning={() =>
                aboutStanding(
                  data.classes.length === 1 ? data.classes[0] : undefined,
                  data.rows.find((r) => r.configuration.id === (search.why ?? table.base))?.configuration,
                  ask,
                  data.rows.filter((r) => r.merit !== undefined).map((r) => r.configuration),
                  form === 'charts' ? { highlight: highlighted } : undefined,
                )
              }
            />
          )}
          {data && form !== 'against' && form !== 'lines' && form !== 'charts' && (
            <Take standings={data} caption={() => sentenceOf(opening.current)} ask={ask} />
          )}
        </Opening>
      </div>
      {standings.isPending ? (
        <Loading what="the standings" />
      ) : trouble ? (
        trouble instanceof Problem && trouble.code === 'nothing-tested' ? (
          Object.keys(search).length > 0 ? (
            <Empty title="Nothing to rank yet">
              {trouble.message}{' '}
              <Link to="/bench" className="link">
                Go to the bench
              </Link>
              , or{' '}
              <button className="link" onClick={() => void navigate({ search: {} })}>
                rank everything
              </button>
              .
            </Empty>
          ) : (
            <section>
              <h2>Nothing to rank yet</h2>
              <FirstSteps />
            </section>
          )
        ) : (
          <Trouble error={trouble} again={() => (weighed !== null ? setWeighing(null) : void standings.refetch())} />
        )
      ) : (
        <>
          {data!.baseNote && (
            <p role="status" className="mb-2 border-l-2 border-gold pl-3">
              {data!.baseNote}
            </p>
          )}
          <OneTestOnly standings={data!} search={search} onSay={say} />
          {form === 'list' ? (
            <PrintableList standings={data!} onWhy={(why) => say({ why })} />
          ) : form === 'charts' ? (
            <ChartsPart ask={ask} highlight={highlighted} onLeaveOut={leaveOut} />
          ) : form === 'against' ? (
            <AgainstPlot
              ask={ask}
              standings={data!}
              against={search.against ?? 'price'}
              onAgainst={(against) => say({ against })}
              tried={search.tried}
              onTry={(tried) => say({ tried })}
            />
          ) : form === 'lines' ? (
            <GenerationsPart ask={ask} />
          ) : (
            <div className="flex min-h-0 flex-1 gap-5 max-md:flex-col">
              <StandingsTable
                standings={data!}
                before={weighed === null ? undefined : standings.data}
                onWhy={(why) => say({ why })}
              />
              {search.weigh && purpose && (
                <PurposeEditor
                  key={purpose.id}
                  purpose={purpose}
                  weighing={{ groups: purpose.weights, suites: purpose.suites, tests: purpose.tests }}
                  onTry={setWeighing}
                  onDone={() => edit(false)}
                  onSaved={(id) => {
                    setWeighing(null);
                    say({ purpose: id });
                  }}
                />
              )}
            </div>
          )}
          {data!.published.length > 0 && data!.metric && form === 'rails' && (
            <PublishedPart published={data!.published} metric={data!.metric} />
          )}
          {form !== 'lines' && (
            <Foot standings={data!} without={search.without} onTakeIn={leaveOut} onSay={say}>
              {search.weigh && shownFirmness && <FirmTop firmness={shownFirmness} standings={data!} />}
            </Foot>
          )}
        </>
      )}
      <WhyPanel ask={ask} configuration={search.why} onLeaveOut={leaveOut} onClose={() => say({ why: undefined })} />
    </div>
  );
}

/** The sentence as text, the caption of whatever leaves the program. */
function sentenceOf(opening: HTMLElement | null): string {
  return (opening?.querySelector('h1')?.parentElement?.nextElementSibling?.textContent ?? 'Standings')
    .replace(/\s+/g, ' ')
    .trim();
}

function Take({
  standings,
  caption,
  ask,
}: {
  standings: Standings;
  caption: () => string;
  ask: ReturnType<typeof askOf>;
}) {
  const table = useTable();
  return (
    <>
      <ExportMenu
        name={`standings ${standings.scope}`}
        csv={() => standingsCsv(standings)}
        html={() => standingsHtml(standings, caption(), day(new Date().toISOString()))}
        draw={(paint, font) => {
          const drawn = drawStanding(standings, { asked: ask }, (id) => slotOf(table, id));
          if (!drawn) throw new Error('Nothing here has a place that could be drawn.');
          const more = drawn.caption.slice(drawn.caption.indexOf('beside the order'));
          return figurePage(drawn, `${caption()} B${more.slice(1)} Lines are 95 % intervals.`, paint, font);
        }}
      />
      <SaveStanding ask={ask} scope={standings.scope} caption={caption} />
    </>
  );
}
