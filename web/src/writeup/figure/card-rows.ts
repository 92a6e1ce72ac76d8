import type { Schemas } from '../../api/client.ts';
import { railScale, tickPath } from '../../chart/Rail.tsx';
import { named } from '../../format/named.ts';
import {
  againstWords,
  byGroup,
  ordinal,
  placeWords,
  RATING_WORDS,
  testName,
  valueWords,
  type CardRow,
  type ReportCard,
} from '../../standings/card/card.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothForms, pageRows } from './rows.ts';

const RATING_COLOURS = { GOOD: 'var(--leaf)', AVERAGE: 'var(--ink)', POOR: 'var(--plum)' } as const;
/** Room for the value beside the name, on a page. */
const VALUE = 110;

/** One device among others, test by test: value, place among the marks of the others, rating; right is better. */
export function drawCard(card: ReportCard, comparison: Schemas['Comparison'] | undefined): Drawn | undefined {
  if (card.rows.length === 0) return undefined;
  const lines = byGroup(card.rows).flatMap(([group, rows]): (string | CardRow)[] => [group, ...rows]);
  const drawing = bothForms(pageRows(310, 170, 26), lines.length, 4, (on) => {
    const { left } = on;
    const room = on.narrow ? on.room - 96 : on.room - 16;
    return lines.flatMap((row, i) => {
      const [line, y] = [on.text(i), on.middle(i)];
      if (typeof row === 'string')
        return [
          words(0, line, row, { size: 14, weight: 600, fill: 'var(--ink-2)' }),
          stroke(0, line + 6, on.width, line + 6, 'var(--hair)'),
        ];
      const scale = railScale([0, ...row.others], room);
      const [place, range] = row.place ? placeWords(row.place) : ['', ''];
      const rated = row.rating && RATING_WORDS[row.rating];
      const ink = row.value === undefined ? 'var(--plum)' : 'var(--ink)';
      return [
        words(0, line, testName(row.metric), { most: on.narrow ? on.nameRoom : left - VALUE - 8 }),
        words(on.narrow ? on.width : left - 12, line, valueWords(row), {
          end: true,
          weight: 600,
          fill: ink,
          most: VALUE + (on.narrow ? 0 : 60),
        }),
        row.place
          ? stroke(left, y, left + room, y, 'var(--hair-2)') +
            `<path transform="translate(${left} ${y.toFixed(1)})" d="${tickPath(row.others, scale, 5)}" stroke="var(--tick)"/>` +
            `<circle cx="${(left + scale.x(0)).toFixed(1)}" cy="${y.toFixed(1)}" r="5" fill="var(--accent, var(--leaf))"/>`
          : '',
        on.narrow
          ? words(on.width, y + 5, [rated, place.replace(/ of .*/, (of) => of)].filter(Boolean).join(' · '), {
              end: true,
              size: 12,
              fill: row.rating ? RATING_COLOURS[row.rating] : 'var(--ink-2)',
            })
          : words(left + room + 14, line, rated ?? '', {
              fill: row.rating ? RATING_COLOURS[row.rating] : 'var(--ink)',
              weight: row.rating === 'AVERAGE' ? 400 : 600,
            }) + words(on.width, line, `${place}${range && ` (${range})`}`, { end: true, size: 12.5 }),
      ];
    });
  });
  const c = card.configuration;
  const best = card.best.map((i) => testName(card.rows[i]!.metric));
  return {
    ...drawing,
    caption: `${named(c)} among ${card.among} others, test by test; marks are the others, right is better.${card.place ? ` Over all it is ${ordinal(card.place.order)} of ${card.place.of} for ${card.purpose}.` : ''}`,
    alt: `Report card of ${named(c)} in ${card.rows.length} tests.${best.length > 0 ? ` It is best at ${best.join(', ')}.` : ''}`,
    columns: [
      'test',
      'value',
      'place',
      'could be',
      'rating',
      ...(comparison ? [`against ${named(comparison.base)}`] : []),
    ],
    rows: card.rows.map((r) => [
      testName(r.metric),
      valueWords(r),
      r.place ? placeWords(r.place)[0] : '',
      r.place ? placeWords(r.place)[1] : '',
      r.rating ? RATING_WORDS[r.rating] : '',
      ...(comparison ? [againstWords(r, comparison)] : []),
    ]),
    asks: card.rows.map((r) => [
      undefined,
      r.value === undefined ? undefined : { of: 'value', configuration: c.id, metric: r.metric.id },
    ]),
  };
}
