import type { Schemas } from '../api/client.ts';
import { ShareBar, signed } from '../chart/ShareBar.tsx';
import { times } from '../format/ratio.ts';
import { partWords } from '../format/parts.ts';
import { verdictWords } from '../format/verdict.ts';

type Overall = Schemas['Overall'];
type Area = Overall['groups'][number];

/** Where an overall comes from: each group and suite by itself, what it adds, what the whole is without it, and what turns it round. */
export function AreasPart({ overall: o, onLeaveOut }: { overall: Overall; onLeaveOut: (key: string) => void }) {
  return (
    <>
      <h3 className="mt-3">Where it comes from</h3>
      <Areas areas={o.groups} alone={o.groups.length < 2} onLeaveOut={onLeaveOut} />
      {o.reverses && (
        <p className="small mt-2 border-l-2 border-gold pl-2">
          The picture turns without {listed(o.reverses.tests)}: {times(o.reverses.ratio)}.{' '}
          {o.reverses.key !== undefined && (
            <button className="link" onClick={() => onLeaveOut(o.reverses!.key!)}>
              Exclude it
            </button>
          )}
        </p>
      )}
      {o.suites.length > 1 && (
        <details className="mt-2">
          <summary className="small cursor-pointer">By suite</summary>
          <Areas areas={o.suites} alone={false} onLeaveOut={onLeaveOut} />
        </details>
      )}
    </>
  );
}

function listed(tests: readonly string[]): string {
  return tests.length <= 3 ? tests.join(', ') : `${tests.slice(0, 3).join(', ')} and ${tests.length - 3} more`;
}

function Areas({
  areas,
  alone,
  onLeaveOut,
}: {
  areas: readonly Area[];
  alone: boolean;
  onLeaveOut: (key: string) => void;
}) {
  const widest = Math.max(...areas.map((a) => Math.abs(a.percent)), 1e-9);
  return (
    <ul className="mt-1">
      {areas.map((a) => (
        <li key={a.key} className="border-b border-hair-2 py-1">
          <span className="flex items-center gap-2">
            <span
              className="min-w-0 flex-1 truncate text-[13px]"
              title={`${a.tests} tests, weight ${(100 * a.weight).toFixed(0)} %`}
            >
              {a.name}
            </span>
            <span className="w-[84px] shrink-0">
              <ShareBar share={a.percent / widest} />
            </span>
            <span className="w-[58px] shrink-0 text-right text-[13px] whitespace-nowrap">{signed(a.percent)} %</span>
          </span>
          <span className="small flex justify-between gap-2">
            <span title={`${verdictWords(a.verdict)} over its ${a.tests} ${a.tests === 1 ? 'test' : 'tests'} alone`}>
              {times(a.ratio)}{' '}
              <span className="text-ink-3">
                ({times(a.low)} to {times(a.high)})
              </span>
            </span>
            {!alone && a.without !== undefined && (
              <button
                className="link whitespace-nowrap"
                onClick={() => onLeaveOut(a.key)}
                aria-label={`without: ${times(a.without)}, exclude ${a.name}`}
              >
                without: {times(a.without)}
              </button>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** Parts that somebody left out, to include again. */
export function LeftOutHere({
  without,
  rows,
  onTakeIn,
}: {
  without: readonly string[] | undefined;
  rows: Schemas['Comparison']['rows'];
  onTakeIn: (key: string) => void;
}) {
  if (!without) return null;
  return (
    <p role="note" className="mb-3 border-l-2 border-gold pl-3">
      Left out here:{' '}
      {without.map((key, i) => (
        <span key={key}>
          {i > 0 && ', '}
          {partWords(key, rows)}{' '}
          <button
            className="link small"
            onClick={() => onTakeIn(key)}
            aria-label={`include again: ${partWords(key, rows)}`}
          >
            include again
          </button>
        </span>
      ))}
    </p>
  );
}
