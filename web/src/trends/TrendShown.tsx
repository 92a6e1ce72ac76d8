import { ExportFigure } from '../export/ExportFigure.tsx';
import { wholeWayWords } from '../writeup/question/asked.ts';
import { toggled } from '../format/parts.ts';
import { CopyButton } from '../ui/CopyButton.tsx';
import { times } from '../format/ratio.ts';
import { verdictWords } from '../format/verdict.ts';
import { TEST_GROUPS } from '../format/format.ts';
import { type TrendsSearch } from '../shell/search-params.ts';
import { Choice } from '../ui/Choice.tsx';
import { useWidth } from '../ui/use-width.ts';
import { LadderShown } from './LadderShown.tsx';
import { Multiples } from './Multiples.tsx';
import { PlanMissing } from './PlanMissing.tsx';
import { SideStrip } from './SideStrip.tsx';
import { StepsPart } from './StepsPart.tsx';
import { trendCsv } from './take-trends.ts';
import { TrendPlot } from './TrendPlot.tsx';
import { FirstToLast, TrendTable } from './TrendTable.tsx';
import type { Trends } from './trends.ts';

/** A trend in the form that is chosen, and what it comes to in words. */
export function TrendShown({
  trends,
  search,
  say,
}: {
  trends: Trends;
  search: TrendsSearch;
  say: (change: Partial<TrendsSearch>) => void;
}) {
  const [holder, width] = useWidth<HTMLDivElement>(1200);
  const form = search.form ?? 'plot';
  const scalable = trends.along.order !== 'VERSION';
  const toScale = scalable && search.even !== true;
  const side = trends.sides.find((s) => s.metric.id === search.side) ?? trends.sides.find((s) => s.points.length > 1);
  const outside = trends.lines.filter((l) => l.ranges.some((r) => r.outside));
  const title = `${trends.maker} ${trends.model} along ${trends.along.label.toLowerCase()}`;
  return (
    <div ref={holder}>
      {trends.steps.length < 2 && (
        <p role="status" className="mb-2 border-l-2 border-gold pl-3">
          There is one step only: nothing to go along yet.
        </p>
      )}
      {trends.units > 1 && (
        <p className="small mb-1">
          The steps come from {trends.units} units of the model, which may differ by themselves.
        </p>
      )}
      {outside.length > 0 && (
        <p className="mb-1 border-l-2 border-plum pl-3">
          {outside
            .map(
              (l) =>
                `${l.metric.name} on ${l.ranges
                  .filter((r) => r.outside)
                  .map((r) => trends.steps[r.step]!.label)
                  .join(', ')}`,
            )
            .join('; ')}{' '}
          {outside.length === 1 ? 'was' : 'were'} out of the usual range: the room, or the device, was not as usual.
        </p>
      )}
      {form === 'table' ? (
        <TrendTable trends={trends} onLeaveOut={(key) => say({ without: toggled(search.without, key) })} />
      ) : form === 'panels' ? (
        <Multiples trends={trends} search={search} toScale={toScale} />
      ) : (
        <>
          <ExportFigure name={title} caption={`${title}.${wholeWayWords(trends)}`} csv={() => trendCsv(trends)}>
            <TrendPlot
              trends={trends}
              width={width}
              toScale={toScale}
              folded={search.fold === true}
              lit={search.lit === undefined ? undefined : String(search.lit)}
              onLit={(id) => say({ lit: litOf(id) })}
            />
          </ExportFigure>
          <StepsPart trends={trends} width={width} toScale={toScale} />
          {side && <SideStrip trends={trends} side={side} width={width} toScale={toScale} />}
        </>
      )}
      <p className="small mt-1 flex flex-wrap items-baseline gap-x-4 print:hidden">
        {scalable && (
          <button className="link" aria-pressed={!toScale} onClick={() => say({ even: toScale ? true : undefined })}>
            {toScale ? 'steps at equal distances' : 'steps to scale'}
          </button>
        )}
        {form === 'plot' && trends.groups.length > 1 && (
          <button
            className="link"
            aria-pressed={search.fold === true}
            onClick={() => say({ fold: search.fold ? undefined : true, lit: undefined })}
          >
            {search.fold ? 'every test by itself' : `fold into ${trends.groups.length} groups`}
          </button>
        )}
        {form === 'plot' && trends.sides.length > 1 && (
          <span>
            below,{' '}
            <Choice
              name="Strip below"
              value={side?.metric.id}
              options={trends.sides.map((s) => ({ value: s.metric.id, label: s.metric.name }))}
              onChoose={(next) => say({ side: next })}
            >
              {side?.metric.name ?? 'nothing'}
            </Choice>
          </span>
        )}
        {search.without && (
          <button className="link" onClick={() => say({ without: undefined })}>
            take in what is left out ({search.without.length})
          </button>
        )}
        <CopyButton text={sentenceOf(trends)} what="the sentence" />
      </p>
      <FirstToLast trends={trends} />
      <LadderShown trends={trends} />
      {trends.unknown.length > 0 && (
        <p className="small mt-1">
          Not among the steps, because {trends.along.label.toLowerCase()} is not known:{' '}
          {trends.unknown.map((c) => `${c.name} (${c.unit})`).join(', ')}.
        </p>
      )}
      {(trends.overall?.apart.length ?? 0) > 0 && (
        <p className="small mt-1">
          No chain of shared tests leads from the first step to{' '}
          {trends.overall!.apart.map((i) => trends.steps[i]!.label).join(', ')}.
        </p>
      )}
      <PlanMissing trends={trends} />
    </div>
  );
}

/** A line that is brought to the front, as the address keeps it: a test by its number, a group by its name. */
function litOf(id: string | undefined): TrendsSearch['lit'] {
  return id === undefined ? undefined : (TEST_GROUPS.find((g) => g === id) ?? Number(id));
}

/** To quote. */
function sentenceOf(trends: Trends): string {
  const all = trends.overall?.firstToLast;
  const [first, last] = [trends.steps[0]!.label, trends.steps.at(-1)!.label];
  return `${trends.maker} ${trends.model}, ${trends.along.label.toLowerCase()} ${first} to ${last}: ${all ? `${times(all.ratio, 3)} over all tests, ${verdictWords(all.verdict)} (95 % interval ${times(all.low, 3)} to ${times(all.high, 3)})` : 'no overall'}; ${trends.steps.length} steps, ${trends.lines.length} tests, weighed for ${trends.purpose}.`;
}
