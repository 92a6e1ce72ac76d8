import { times } from '../format/ratio.ts';
import { number, reading, unitName } from '../format/format.ts';
import type { Trends } from './trends.ts';

/** Steps along a quantity: how far it is worth going, and what each step costs and brings. */
export function LadderShown({ trends }: { trends: Trends }) {
  const { ladder, along } = trends;
  if (!ladder) return null;
  const unit = unitName(along.unit);
  const shownSides = trends.sides.filter((s) => s.points.length > 0);
  return (
    <section className="mt-3">
      <p>
        {ladder.knee !== undefined
          ? `Beyond ${trends.steps[ladder.knee]!.label} no step brings ${number(trends.materiality)} % more over all tests.`
          : 'Every step up to the last one brings what matters.'}
      </p>
      <div className="wide overflow-x-auto" role="group" aria-label="Ladder" tabIndex={0}>
        <table className="data mt-1">
          <thead>
            <tr>
              <th>{along.label}</th>
              <th className="text-right">Best so far</th>
              <th className="text-right">More than the step before</th>
              {unit !== '' && <th className="text-right">For each {unit}</th>}
              {ladder.perWatt && (
                <th className="text-right" title={`By ${ladder.perWatt.power}; the work is that of all other tests`}>
                  Work per watt
                </th>
              )}
              {shownSides.map((s) => (
                <th key={s.metric.id} className="text-right">
                  {s.metric.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {trends.steps.map((s, i) => {
              const gain = ladder.gains.find((g) => g.to === i);
              return (
                <tr key={s.key} className={i === ladder.knee ? 'font-semibold' : ''}>
                  <td className="whitespace-nowrap">
                    {s.label}
                    {i === ladder.knee && <span className="small"> the knee</span>}
                  </td>
                  <td className="text-right">{ratio(ladder.best[i])}</td>
                  <td className="text-right whitespace-nowrap">{gain ? signed(gain.percent) : '–'}</td>
                  {unit !== '' && <td className="text-right whitespace-nowrap">{gain ? signed(gain.perUnit) : '–'}</td>}
                  {ladder.perWatt && <td className="text-right">{ratio(ladder.perWatt.ratios[i])}</td>}
                  {shownSides.map((side) => {
                    const p = side.points.find((o) => o.step === i);
                    return (
                      <td key={side.metric.id} className="text-right whitespace-nowrap">
                        {p ? reading(p.value, side.metric) : '–'}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const ratio = (value: number | null | undefined) => (value == null ? '–' : times(value, 3));
const signed = (percent: number) => `${percent > 0 ? '+' : percent < 0 ? '−' : ''}${number(Math.abs(percent), 2)} %`;
