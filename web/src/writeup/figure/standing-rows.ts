import type { Standings } from '../../standings/question/ask.ts';
import { railScale } from '../../chart/Rail.tsx';
import { direction, index, placeOf, placeParts, quantity } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';
import { standingWords, type AskedStanding } from '../question/asked.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothForms, pageRows } from './rows.ts';

/** Where names begin, beside the place and what it could be. */
const NAME = 76;
const MOST = 20;

/** A standing as a list with a mark for each on one axis; right is better. */
export function drawStanding(
  standings: Standings,
  question: AskedStanding & { highlight?: number | undefined },
): Drawn | undefined {
  const { highlight } = question;
  const by = standingWords(standings, question);
  const ranked = standings.rows.filter((r) => r.merit !== undefined && r.status !== 'NOT_LINKED');
  const shown = ranked.slice(0, MOST);
  if (shown.length === 0) return undefined;
  const own = ranked.find((r) => r.configuration.id === highlight);
  if (own && !shown.includes(own)) shown.push(own);
  const merits = shown.map((r) => r.merit!);
  const all = shown.map((r) => r.configuration);
  const ends = (r: (typeof shown)[number]) =>
    r.index !== undefined && r.low !== undefined && r.high !== undefined && r.index > 0 && r.low > 0
      ? [r.merit! + Math.log(r.low / r.index), r.merit! + Math.log(r.high / r.index)]
      : undefined;
  const first = shown[0]!;
  const { metric } = standings;
  // Of one test alone the score itself is what readers look for.
  const shownOf = (r: (typeof shown)[number]) =>
    metric && r.value !== undefined
      ? quantity(r.value, metric.unit)
      : r.index === undefined
        ? ''
        : index(r.index, r.low, r.high);
  const drawing = bothForms(pageRows(300, 80, 30), shown.length, 4, (on) => {
    const { left, room } = on;
    const scale = railScale(merits, room);
    const x = (merit: number) => left + Math.min(room, Math.max(0, scale.x(merit)));
    return shown.flatMap((r, i) => {
      const [y, line] = [on.middle(i), on.text(i)];
      const is = r.configuration.id === highlight;
      const ink = is ? 'var(--accent, var(--leaf))' : 'var(--ink)';
      const interval = ends(r);
      return [
        words(22, line, placeParts(r)[0], { end: true, fill: 'var(--ink-2)', size: 14, weight: 600 }),
        words(27, line, placeParts(r)[1], { fill: 'var(--ink-2)', size: 11 }),
        words(NAME, line, toldApart(r.configuration, all), {
          fill: ink,
          weight: is ? 600 : 400,
          most: on.nameRoom - NAME,
        }),
        stroke(left, y, left + room, y, 'var(--hair-2)'),
        interval ? stroke(x(interval[0]!), y, x(interval[1]!), y, ink, 2.4) : '',
        `<circle cx="${x(r.merit!).toFixed(1)}" cy="${y.toFixed(1)}" r="5" fill="${is ? 'var(--accent, var(--leaf))' : 'var(--mark-8)'}"/>`,
        words(on.width, line, shownOf(r), { end: true, weight: 600, fill: ink }),
      ];
    });
  });
  return {
    ...drawing,
    caption: `Standing ${by}${metric ? ` (${direction(metric.direction)})` : ''}${standings.base ? `, ${named(standings.base)} = 100` : ''}; beside the order stands what the place could be, right is better.${ranked.length > shown.length ? ` ${shown.length} of ${ranked.length} are shown.` : ''}`,
    alt: `Standing of ${shown.length} configurations ${by}. First is ${named(first.configuration)}${own && own !== first ? `; ${named(own.configuration)} has place ${placeOf(own)}` : ''}.`,
    columns: [
      'place',
      'configuration',
      ...(metric ? [metric.unit === '1' ? 'score' : metric.unit] : []),
      'index',
      '95 % low',
      '95 % high',
      metric ? 'runs' : 'tests',
    ],
    rows: shown.map((r) => [
      placeOf(r),
      named(r.configuration),
      ...(metric ? [r.value === undefined ? '' : quantity(r.value, metric.unit)] : []),
      r.index === undefined ? '' : index(r.index, r.low, r.high),
      r.low === undefined ? '' : index(r.low),
      r.high === undefined ? '' : index(r.high),
      String(metric ? (r.runs ?? '') : r.tests),
    ]),
  };
}
