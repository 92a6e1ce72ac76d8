import { escaped } from '../../export/page.ts';
import { table } from '../../export/csv.ts';
import { placeOf, quantity } from '../../format/format.ts';
import type { Standings } from '../question/ask.ts';
import { againstBase, againstHeading, byDifferences, intervalWords } from '../question/held-against.ts';

/** Every number of a standing as a table. */
export function standingsCsv(standings: Standings): string {
  const one = standings.metric;
  return table([
    [
      'order',
      'place from',
      'place to',
      'status',
      'maker',
      'model',
      'class',
      'unit',
      'configuration',
      ...(one ? [`${one.name} in ${one.unit}`, 'runs'] : []),
      byDifferences(one) ? `less that of the base in ${one!.unit}` : 'index',
      '95 % low',
      '95 % high',
      'the interval rests on',
      'results on a usual spread',
      'capped by the display',
      'coverage',
      'tests',
      'beats this share of the others',
      'third',
      'older suite version',
      'newer firmware',
      ...standings.parts.map((p) => `${p.name}, index in its part`),
    ],
    ...standings.rows.map((r) => [
      r.order,
      r.placeBest,
      r.placeWorst,
      r.status.toLowerCase().replace('_', ' '),
      r.configuration.maker,
      r.configuration.model,
      r.configuration.deviceClass.toLowerCase(),
      r.configuration.unit,
      r.configuration.name,
      ...(one ? [r.value, r.runs] : []),
      r.difference?.value ?? r.index,
      r.difference ? r.difference.low : r.low,
      r.difference ? r.difference.high : r.high,
      standings.days ?? r.covers,
      r.assumed,
      r.atLeast ? 'at least' : '',
      r.coverage,
      r.tests,
      r.percentile,
      r.third?.toLowerCase(),
      r.staleTests,
      r.newerFirmware,
      ...standings.parts.map((_, i) => {
        const m = r.parts.find((p) => p.part === i);
        return m === undefined ? undefined : 100 * Math.exp(m.merit);
      }),
    ]),
    ...(one
      ? standings.published.map((p) => [
          '',
          '',
          '',
          'published',
          p.maker,
          p.model,
          '',
          '',
          p.source,
          p.value,
          p.results,
          p.index,
        ])
      : []),
    ...standings.leftOut.map((l) => [
      '',
      '',
      '',
      'left out',
      '',
      '',
      '',
      l.suite,
      l.test,
      ...(one ? ['', ''] : []),
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      l.reason,
    ]),
  ]);
}

/** A table to put into any page: no style, no script, nothing from elsewhere. */
export function standingsHtml(standings: Standings, caption: string, when: string): string {
  const one = standings.metric;
  const cell = (words: string | number | undefined) => `<td>${escaped(String(words ?? ''))}</td>`;
  const rows = standings.rows
    .filter((r) => r.status !== 'NOT_LINKED')
    .map(
      (r) =>
        `<tr>${cell(placeOf(r))}${`<th scope="row">${escaped(`${r.configuration.maker} ${r.configuration.model}, ${r.configuration.name}`)}</th>`}${one ? cell(r.value === undefined ? '–' : quantity(r.value, one.unit)) : ''}${cell(againstBase(r, one))}${cell(intervalWords(r, one))}${cell(one ? r.runs : `${r.tests} of ${standings.metrics.length}`)}</tr>`,
    );
  return `<table>\n<caption>${escaped(caption)} ${escaped(when)}</caption>\n<thead><tr><th scope="col">Place</th><th scope="col">Model and configuration</th>${one ? `<th scope="col">${escaped(one.name)}</th>` : ''}<th scope="col">${againstHeading(standings)}</th><th scope="col">95 % interval</th><th scope="col">${one ? 'Runs' : 'Tests'}</th></tr></thead>\n<tbody>\n${rows.join('\n')}\n</tbody>\n</table>\n`;
}
