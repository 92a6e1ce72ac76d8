import { times } from '../format/ratio.ts';
import { verdictWords } from '../format/verdict.ts';
import { number, reading, unitName } from '../format/format.ts';
import type { Trends } from './trends.ts';

/** Every number of the trend: value and ratio at each step, and what the whole of it comes to. */
export function TrendTable({ trends, onLeaveOut }: { trends: Trends; onLeaveOut: (key: string) => void }) {
  const cells = <P extends { step: number }>(points: readonly P[], show: (p: P) => React.ReactNode) =>
    trends.steps.map((s, i) => {
      const p = points.find((q) => q.step === i);
      return (
        <td key={s.key} className="text-right whitespace-nowrap">
          {p ? show(p) : '–'}
        </td>
      );
    });
  return (
    <div className="wide min-h-0 overflow-auto" role="group" aria-label="Trend as a table" tabIndex={0}>
      <table className="data">
        <thead>
          <tr>
            <th>Test</th>
            {trends.steps.map((s) => (
              <th key={s.key} className="text-right">
                {s.label}
              </th>
            ))}
            <th className="text-right">First to last</th>
            <th className="text-right">Per step</th>
          </tr>
        </thead>
        <tbody>
          {trends.overall && (
            <tr>
              <td className="font-semibold">Overall</td>
              {cells(trends.overall.points, (p) => times(p.ratio, 3))}
              <td className="text-right whitespace-nowrap">
                {trends.overall.firstToLast
                  ? `${times(trends.overall.firstToLast.ratio, 3)}, ${verdictWords(trends.overall.firstToLast.verdict)}`
                  : '–'}
              </td>
              <td />
            </tr>
          )}
          {trends.lines.map((l) => (
            <tr key={l.metric.id}>
              <td>
                {l.metric.name} <span className="small">{unitName(l.metric.unit)}</span>{' '}
                <button
                  className="small link print:hidden"
                  aria-label={`Leave out ${l.metric.name}`}
                  onClick={() => onLeaveOut(`test:${l.metric.testId}`)}
                >
                  leave out
                </button>
              </td>
              {cells(l.points, (p) => (
                <>
                  {p.held && (
                    <span className="small">{l.metric.direction === 'LESS_IS_BETTER' ? 'at most' : 'at least'} </span>
                  )}
                  {reading(p.value, { ...l.metric, unit: '1' })} <span className="small">{times(p.ratio)}</span>
                </>
              ))}
              <td className="text-right whitespace-nowrap">
                {l.firstToLast ? `${l.firstToLast.size}, ${verdictWords(l.firstToLast.verdict)}` : '–'}
              </td>
              <td className="text-right whitespace-nowrap">{l.slope ? times(l.slope.perStep, 3) : '–'}</td>
            </tr>
          ))}
          {trends.sides.map((s) => (
            <tr key={s.metric.id}>
              <td>
                {s.metric.name} <span className="small">{unitName(s.metric.unit)}</span>
              </td>
              {cells(s.points, (p) => (s.metric.kind === 'CHECK' ? reading(p.value, s.metric) : number(p.value, 3)))}
              <td />
              <td />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** First to last, smallest to largest, and how much of it each step brought. */
export function FirstToLast({ trends }: { trends: Trends }) {
  const lines = trends.lines.filter((l) => l.firstToLast).sort((a, b) => a.firstToLast!.ratio - b.firstToLast!.ratio);
  if (lines.length === 0) return null;
  const [least, most] = [lines[0]!, lines.at(-1)!];
  const all = trends.overall?.firstToLast;
  const unmeasured = trends.lines.reduce((sum, l) => sum + l.steps.filter((s) => s.unmeasured).length, 0);
  return (
    <section className="mt-3">
      <p>
        {all && trends.overall && (
          <>
            Overall, {trends.steps[trends.overall.points[0]!.step]!.label} to{' '}
            {trends.steps[trends.overall.points.at(-1)!.step]!.label}:{' '}
            <b className="font-semibold">
              {times(all.ratio, 3)}, {verdictWords(all.verdict)}
            </b>
            , 95 % interval {times(all.low, 3)} to {times(all.high, 3)}, {trends.overall.days}.{' '}
          </>
        )}
        {lines.length > 1 &&
          `From ${least.firstToLast!.size} (${least.metric.name}) to ${most.firstToLast!.size} (${most.metric.name}). `}
        {unmeasured > 0 &&
          `${unmeasured} of the steps rest on a spread that is only usual for such tests: run each three times. `}
        Steps are marked where they are clear after correction for all {trends.looks}{' '}
        {trends.looks === 1 ? 'step' : 'steps'} shown: at most one mark in twenty is chance.
      </p>
      <details className="mt-1">
        <summary className="small cursor-pointer">First to last, test by test, and what each step brought</summary>
        <div className="wide overflow-x-auto">
          <table className="data mt-1">
            <thead>
              <tr>
                <th>Test</th>
                <th className="text-right">First to last</th>
                <th>Verdict</th>
                <th>Of that, each step in %</th>
                <th>Level changed</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <tr key={l.metric.id}>
                  <td>{l.metric.name}</td>
                  <td className="text-right whitespace-nowrap">
                    {l.firstToLast!.size} <span className="small">{times(l.firstToLast!.ratio)}</span>
                  </td>
                  <td className="whitespace-nowrap">{verdictWords(l.firstToLast!.verdict)}</td>
                  <td className="whitespace-nowrap">
                    {l.steps
                      .map((s) => `${trends.steps[s.to]!.label} ${s.share > 0 ? '+' : ''}${number(s.share, 2)}`)
                      .join(' · ')}
                  </td>
                  <td>{l.levels.map((c) => `${times(c.ratio)} after ${trends.steps[c.before]!.label}`).join(', ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </section>
  );
}
