import { escaped, framed, HEIGHT, lines, rule, text, WIDTH, type Paint } from '../../export/page.ts';
import { table } from '../../export/csv.ts';
import { placeOf, placeParts, quantity } from '../../format/format.ts';
import { railScale, tickPath } from '../../chart/Rail.tsx';
import type { Standings } from '../question/ask.ts';
import { againstBase, againstHeading, byDifferences, intervalWords, onRail } from '../question/held-against.ts';
import { coversAll } from './covers-all.ts';

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
      'held by a display',
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

const [EDGE, TOP, FOOT, TALLEST] = [70, 190, 60, 62];
const MOST_LINES = 28;
const FROM_TABLE = 8;

/**
 * The standing as a picture: the first ones, and whatever else is on the table.
 *
 * @param onTable whether a configuration is on the table
 * @param markOf  its mark, as a path around 0 and a colour
 */
export function standingsFigure(
  standings: Standings,
  caption: string,
  onTable: (id: number) => boolean,
  markOf: (id: number) => { path: string; colour: string },
  paint: Paint,
  font: string,
): string {
  const ranked = standings.rows.filter((r) => r.merit !== undefined);
  const first = MOST_LINES - FROM_TABLE;
  const shown =
    ranked.length <= MOST_LINES
      ? ranked
      : [
          ...ranked.slice(0, first),
          ...ranked
            .slice(first)
            .filter((r) => onTable(r.configuration.id))
            .slice(0, FROM_TABLE),
        ];
  const line = Math.min(TALLEST, (HEIGHT - TOP - FOOT) / Math.max(1, shown.length));
  const size = Math.min(25, line * 0.62);
  const [left, width] = [760, WIDTH - EDGE - 760];
  const scale = railScale(
    ranked.map((r) => r.merit!),
    width,
  );
  const x = (merit: number) => (left + Math.min(width, Math.max(0, scale.x(merit)))).toFixed(1);
  const ticks = tickPath(
    ranked.map((r) => r.merit!),
    scale,
    6,
  );
  const body = shown.map((r, i) => {
    const y = TOP + i * line;
    const middle = (y + line / 2).toFixed(1);
    const base = y + line * 0.5 + size * 0.34;
    const mark = markOf(r.configuration.id);
    const span = onRail(r, standings.metric);
    return (
      text(EDGE, base, placeParts(r)[0], size, paint.ink, {
        weight: 600,
      }) +
      text(EDGE + size * 1.4, base, placeParts(r)[1], size * 0.6, paint.quiet) +
      text(EDGE + 110, base, `${r.configuration.maker} ${r.configuration.model}`, size, paint.ink, {
        weight: 600,
        most: 280,
      }) +
      text(EDGE + 400, base, r.configuration.name, size * 0.74, paint.quiet, { most: 200 }) +
      text(
        left - 20,
        base,
        byDifferences(standings.metric) ? quantity(r.value!, standings.metric!.unit) : againstBase(r, undefined),
        size,
        paint.ink,
        { weight: 600, end: true },
      ) +
      `<path d="M${left} ${middle}h${width}" stroke="${paint.hair}"/><path transform="translate(${left} ${middle})" d="${ticks}" stroke="${paint.hair}" stroke-width="1.5"/>` +
      (span
        ? `<path d="M${x(span.low)} ${middle}H${x(span.high)}" stroke="${mark.colour}" stroke-width="4" stroke-linecap="round"/>`
        : '') +
      `<path transform="translate(${x(r.merit!)} ${middle})" d="${mark.path}" fill="${r.status === 'PLACED' ? mark.colour : (paint.paper ?? '#ffffff')}" stroke="${mark.colour}" stroke-width="2"/>` +
      rule(EDGE, y + line, WIDTH - 2 * EDGE, paint.hair)
    );
  });
  const rest = ranked.length - shown.length;
  return framed(paint.paper, font, [
    text(EDGE, 84, 'Standings', 42, paint.ink, { weight: 600 }),
    lines(EDGE, 122, caption, 23, paint.quiet, WIDTH - 2 * EDGE).drawn,
    ...body,
    text(
      EDGE,
      HEIGHT - 24,
      `Right is better; bars are 95 % intervals, ${coversAll(standings)}, with the noise of the base and of missing tests.${rest > 0 ? ` ${rest} more are not shown.` : ''}`,
      19,
      paint.quiet,
    ),
    text(WIDTH - EDGE, HEIGHT - 24, 'Yarrowmark', 19, paint.quiet, { end: true }),
  ]);
}
