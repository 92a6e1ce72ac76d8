import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { number, reading } from '../format/format.ts';
import { times } from '../format/ratio.ts';
import { table } from '../export/csv.ts';
import { save } from '../export/save-file.ts';

const HOW = {
  LINEAR: 'Each part’s share; they add up exactly.',
  SHAPLEY: 'Each part’s share is the mean over all orders in which the parts could have changed.',
  EVENLY: 'Each part’s share, with all parts changing evenly together.',
} as const;

/** More than this, and what was typed is no rounding of what the parts make. */
const ROUNDED = 0.01;

function differs(stated: number | undefined, recomputed: number, t: Schemas['ComparedTotal']): boolean {
  return t.label === undefined && stated !== undefined && Math.abs(stated / recomputed - 1) > ROUNDED;
}

/** Suites' own totals: which part moved them, and what they are without a part that is broken. */
export function TotalsPart({ base, other }: { base: number; other: number }) {
  const [without, setWithout] = useState<number[]>([]);
  const totals = useQuery({
    queryKey: ['compared-totals', base, other, without],
    queryFn: () => value(api.GET('/api/compare/totals', { params: { query: { base, with: other, without } } })),
    placeholderData: keepPreviousData,
  });
  if (!totals.data || totals.data.length === 0) return null;
  return (
    <section className="mt-5">
      <h2>Suites’ own totals</h2>
      {totals.data.map((t) => (
        <details key={t.metricId} className="border-b border-hair-2 py-1.5">
          <summary className="cursor-pointer">
            {t.name} <b className="font-semibold">{times(t.ratio, 3)}</b>
            {t.label !== undefined && <span className="small block text-gold-ink">{t.label}</span>}
          </summary>
          <p className="small mt-1">
            {reading(t.base, { unit: t.unit })} → {reading(t.total, { unit: t.unit })}. {HOW[t.how]}
            {differs(t.baseStated, t.base, t) || differs(t.stated, t.total, t) ? (
              <span className="block text-gold-ink">
                Typed as {t.baseStated === undefined ? '–' : reading(t.baseStated, { unit: t.unit })} →{' '}
                {t.stated === undefined ? '–' : reading(t.stated, { unit: t.unit })}; its parts make another.
              </span>
            ) : null}
          </p>
          <table className="mt-1 w-full text-[13px]">
            <thead className="sr-only">
              <tr>
                <th>Part</th>
                <th>Share of the difference</th>
                <th>Take out</th>
              </tr>
            </thead>
            <tbody>
              {t.parts.map((p) => (
                <tr key={p.metricId} className={p.contribution === undefined ? 'text-ink-3' : ''}>
                  <td className="pr-2">
                    {p.test}
                    {p.contribution === undefined && !p.takenOut && (
                      <span className="small block text-ink-3">
                        {p.base === undefined ? 'not measured on the base' : 'not measured here'}
                      </span>
                    )}
                  </td>
                  <td className="text-right whitespace-nowrap">
                    {p.contribution === undefined
                      ? '–'
                      : `${p.contribution >= 0 ? '+' : ''}${number(p.contribution, 3)}`}
                  </td>
                  <td className="pl-2 text-right">
                    {(p.contribution !== undefined || p.takenOut) && (
                      <button
                        className="link small"
                        aria-pressed={p.takenOut}
                        onClick={() =>
                          setWithout(p.takenOut ? without.filter((id) => id !== p.metricId) : [...without, p.metricId])
                        }
                      >
                        {p.takenOut ? 'include' : 'exclude'}
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <button
            className="link small mt-1"
            onClick={() =>
              save(
                new Blob([totalCsv(t)], { type: 'text/csv;charset=utf-8' }),
                `${t.name.replace(/[^\w-]+/g, '-').toLowerCase()}.csv`,
              )
            }
          >
            Export as CSV
          </button>
        </details>
      ))}
    </section>
  );
}

function totalCsv(t: Schemas['ComparedTotal']): string {
  return table([
    ['part', 'unit', 'base', 'this', `share of the difference in ${t.unit}`, 'taken out'],
    ...t.parts.map((p) => [p.test, p.unit, p.base, p.value, p.contribution, p.takenOut ? 'yes' : '']),
    [t.label ?? t.name, t.unit, t.base, t.total, t.total - t.base, ''],
  ]);
}
