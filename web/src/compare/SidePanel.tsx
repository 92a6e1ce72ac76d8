import { Link } from '@tanstack/react-router';
import type { Schemas } from '../api/client.ts';
import { notCountedWords, takeWords } from '../format/takes.ts';
import { factStep, number, percent, quantity } from '../format/format.ts';
import { AreasPart } from './AreasPart.tsx';
import { times } from '../format/ratio.ts';
import { VERDICTS, countedVerdict, howSure, type Sizes } from '../format/verdict.ts';

type Comparison = Schemas['Comparison'];
type Side = Comparison['sides'][number];
const MATTERS = {
  POWER: 'Power in the sessions',
  RECORDING: 'Screen recording',
  ROOM: 'Room in the sessions',
  DAYS: 'Measured',
} as const;
const SHOWN_FACTS = 6;

/** What is beside the lines: what changed, the overall, and where it comes from. */
export function SidePanel({
  comparison,
  side,
  sizes,
  purpose,
  onLeaveOut,
}: {
  comparison: Comparison;
  side: Side;
  sizes: Sizes | undefined;
  purpose: string;
  onLeaveOut: (key: string) => void;
}) {
  return (
    <div className="flex flex-col gap-5 pb-4">
      <Overall side={side} sizes={sizes} purpose={purpose} onLeaveOut={onLeaveOut} />
      <Changed comparison={comparison} side={side} />
      {comparison.notCounted > 0 && (
        <p className="small">
          Taken {takeWords(comparison.take)}
          {comparison.baseTake !== comparison.take && `, the base ${takeWords(comparison.baseTake)}`}; of those
          compared, {notCountedWords(comparison.notCounted)}.
        </p>
      )}
      <LeftOut comparison={comparison} />
    </div>
  );
}

function Overall({
  side,
  sizes,
  purpose,
  onLeaveOut,
}: {
  side: Side;
  sizes: Sizes | undefined;
  purpose: string;
  onLeaveOut: (key: string) => void;
}) {
  const o = side.overall;
  if (!o)
    return (
      <section>
        <h2>Overall</h2>
        <p className="mt-1 text-ink-2">{side.noOverall}</p>
      </section>
    );
  return (
    <section>
      <h2>Overall</h2>
      <p className="mt-0.5 font-title text-[32px] leading-none" title={o.sentence}>
        {sizes === 'times' ? times(o.ratio, 3) : o.size}
      </p>
      <p className="mt-1 font-semibold">
        {howSure(o.verdict)}
        {side.clean && <span className="pill ml-2">a clean comparison</span>}
      </p>
      {side.swayed && <Swayed swayed={side.swayed} sizes={sizes} onLeaveOut={onLeaveOut} />}
      {side.nearZero && (
        <p role="note" className="my-1.5 border-l-2 border-gold pl-2">
          {percent(side.nearZero.share)} of this is {side.nearZero.test} alone: {quantity(side.nearZero.base, '%')} →{' '}
          {quantity(side.nearZero.value, '%')}, both near zero. Such a test is better compared by its difference;{' '}
          <button className="link" onClick={() => onLeaveOut(`test:${side.nearZero!.testId}`)}>
            leave it out
          </button>
          .
        </p>
      )}
      <p className="small mt-0.5">
        95 % interval {sizes === 'times' ? `${times(o.low, 3)} to ${times(o.high, 3)}` : o.range} ·{' '}
        {sizes === 'times' ? o.size : times(o.ratio, 3)} over {o.shared} shared {o.shared === 1 ? 'test' : 'tests'},{' '}
        {purpose}
      </p>
      <p className="small mt-1">
        {VERDICTS.filter((v) => o.counts[v])
          .map((v) => countedVerdict(v, o.counts[v]!))
          .join(' · ')}
      </p>
      {o.unmeasured > 0 && (
        <p className="small">
          {o.unmeasured === o.shared ? 'Every test was run once' : `${o.unmeasured} of the tests were run once`}, and
          how repeatable {o.unmeasured === 1 ? 'it is' : 'they are'} has not been measured here: what is usual is taken,
          and whiskers are dashed.
        </p>
      )}
      <p className="small first-letter:uppercase">{o.days}.</p>
      <p className="small">
        from {times(o.smallest.ratio)} in {o.smallest.test} to {times(o.largest.ratio)} in {o.largest.test}
      </p>
      <AreasPart overall={o} onLeaveOut={onLeaveOut} />
    </section>
  );
}

/** What else moves the overall so far that the overall alone would mislead. */
function Swayed({
  swayed,
  sizes,
  onLeaveOut,
}: {
  swayed: NonNullable<Side['swayed']>;
  sizes: Sizes | undefined;
  onLeaveOut: (key: string) => void;
}) {
  const size = (ratio: number, words: string) => (sizes === 'times' ? times(ratio, 3) : words);
  return (
    <p role="note" className="my-1.5 border-l-2 border-gold pl-2">
      {swayed.facts.length > 0 && (
        <>
          {swayed.facts.slice(0, 2).join(' and ')}
          {swayed.facts.length > 2 && ` and ${swayed.facts.length - 2} more`} also changed:{' '}
        </>
      )}
      {swayed.name} {size(swayed.ratio, swayed.size)};{' '}
      <button className="link" onClick={() => onLeaveOut(swayed.key)}>
        without {swayed.name} {size(swayed.without, swayed.withoutSize)}
      </button>
      .
    </p>
  );
}

function Changed({ comparison, side }: { comparison: Comparison; side: Side }) {
  const { differing, partly, same } = side.changed;
  const told = differing.filter((r) => r.role !== 'WITHIN_TOLERANCE');
  const tolerated = differing.length - told.length;
  const alone = told.length === 1 && !side.conditions.some((c) => c.disturbs);
  const also = told.filter((r) => r.role === 'ALSO_CHANGED').length + side.conditions.filter((c) => c.disturbs).length;
  return (
    <section>
      <h2>What changed</h2>
      {told.slice(0, SHOWN_FACTS).map((row) => (
        <div key={row.key} className="border-b border-hair-2 py-1.5">
          <p>
            {row.label}{' '}
            <b className="font-semibold">
              {row.cells[0]?.shown ?? 'not known'} → {row.cells[1]?.shown ?? 'not known'}
            </b>
            {row.cells[1]?.change && <span className="small ml-1">{factStep(row.cells[1].change, row.unit)}</span>}
          </p>
          <span className="pill" data-tone={row.role === 'ALSO_CHANGED' && !alone ? 'wait' : undefined}>
            {alone
              ? 'the change'
              : row.role === 'UNDER_TEST'
                ? 'the change under test'
                : 'also changed: may explain part of it'}
          </span>
        </div>
      ))}
      {side.conditions.map((c) => (
        <div key={c.matter} className="border-b border-hair-2 py-1.5">
          <p>
            {MATTERS[c.matter]}{' '}
            <b className="font-semibold">{c.matter === 'DAYS' ? c.other : `${c.base} → ${c.other}`}</b>
          </p>
          {c.disturbs && (
            <span className="pill" data-tone="wait">
              also changed: may explain part of it
            </span>
          )}
        </div>
      ))}
      {side.unlikeUnits.length > 0 && (
        <p className="mt-1.5 border-l-2 border-gold pl-2">
          Two units with the same facts differ clearly on {side.unlikeUnits.slice(0, 4).join(', ')}
          {side.unlikeUnits.length > 4 && ` and ${side.unlikeUnits.length - 4} more`}: the units are unlike, and other
          differences may be as well.
        </p>
      )}
      <p className="small mt-1.5">
        {told.length > SHOWN_FACTS && <>{told.length - SHOWN_FACTS} more facts differ. </>}
        {told.length === 0 && also === 0 && <>No fact that is known of both differs. </>}
        {tolerated > 0 && <>{tolerated} within tolerance. </>}
        {partly.length > 0 && <>{partly.length} known of one only. </>}
        {same.length} the same.{' '}
        <Link
          to="/shelf/difference"
          search={{ ids: [comparison.base.id, side.configuration.id], base: comparison.base.id }}
          className="link"
        >
          Show all
        </Link>
      </p>
      {side.quantity !== undefined && comparison.per && (
        <p className="small">
          Divided by {number(side.quantity)} {comparison.per.unit} here.
        </p>
      )}
    </section>
  );
}

function LeftOut({ comparison }: { comparison: Comparison }) {
  if (comparison.leftOut.length === 0) return null;
  return (
    <section>
      <h3>Not in the overall</h3>
      {comparison.leftOut.map((l) => (
        <p key={l.reason} className="small mt-0.5">
          {l.tests.join(', ')}
          {l.count > l.tests.length && ` and ${l.count - l.tests.length} more`}: {l.reason}.
        </p>
      ))}
    </section>
  );
}
