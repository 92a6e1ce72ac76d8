import type { Standings } from '../../standings/question/ask.ts';
import { onRail } from '../../standings/question/held-against.ts';
import { logTicks } from '../../chart/axis-ticks.ts';
import { markColour, markPath } from '../../chart/Mark.tsx';
import { railScale } from '../../chart/Rail.tsx';
import { direction, index, number, placeOf, placeParts, quantity } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';
import { standingWords, type AskedStanding } from '../question/asked.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothForms, pageRows } from './rows.ts';

/** Where names begin, beside the place and what it could be. */
const NAME = 76;
const MOST = 20;
/** Room for the axis. */
const FOOT = 22;
const MOST_TICKS = 5;

/** Round indexes between the least and the most that is shown; none where there is no index. */
function indexTicks(shown: Standings['rows']): { merit: number; words: string }[] {
  const first = shown.find((r) => r.index !== undefined && r.index > 0 && r.merit !== undefined);
  if (!first) return [];
  // Merits are logarithms of the index, from whatever has 100.
  const zero = Math.log(first.index!) - first.merit!;
  const merits = shown.map((r) => r.merit!);
  const [low, high] = [Math.exp(Math.min(...merits) + zero), Math.exp(Math.max(...merits) + zero)];
  return logTicks(low, high, MOST_TICKS).map((t) => ({ merit: Math.log(t) - zero, words: number(t, 3) }));
}

/**
 * A standing as a list with a mark for each on one axis; right is better.
 *
 * @param slotOf where a configuration lies on the table: it is shown however many are before it, with its own mark
 */
export function drawStanding(
  standings: Standings,
  question: AskedStanding & { highlight?: number | undefined },
  slotOf: (id: number) => number | null = () => null,
): Drawn | undefined {
  const { highlight } = question;
  const by = standingWords(standings, question);
  const ranked = standings.rows.filter((r) => r.merit !== undefined && r.status !== 'NOT_LINKED');
  const shown = ranked.slice(0, MOST);
  if (shown.length === 0) return undefined;
  const own = ranked.find((r) => r.configuration.id === highlight);
  shown.push(...ranked.filter((r) => !shown.includes(r) && (r === own || slotOf(r.configuration.id) !== null)));
  // Whatever is drawn has room: an interval that is cut off says less than it knows.
  const merits = shown.flatMap((r) => {
    const span = onRail(r, standings.metric);
    return [r.merit!, ...(span ? [span.low, span.high] : [])];
  });
  const all = shown.map((r) => r.configuration);
  const first = shown[0]!;
  const { metric } = standings;
  // Of one test alone the score itself is what readers look for.
  const shownOf = (r: (typeof shown)[number]) =>
    metric && r.value !== undefined
      ? quantity(r.value, metric.unit)
      : r.index === undefined
        ? ''
        : index(r.index, r.low, r.high);
  const ticks = indexTicks(shown);
  const drawing = bothForms(pageRows(300, 80, 30), shown.length, ticks.length > 0 ? FOOT : 4, (on, height) => {
    const { left, room } = on;
    const scale = railScale(merits, room);
    const x = (merit: number) => left + Math.min(room, Math.max(0, scale.x(merit)));
    return [
      ...ticks.map(({ merit, words: said }) =>
        words(x(merit), height - 3, said, { size: 11, middle: true, fill: 'var(--ink-3)' }),
      ),
      ...shown.flatMap((r, i) => {
        const [y, line] = [on.middle(i), on.text(i)];
        const is = r.configuration.id === highlight;
        const slot = slotOf(r.configuration.id);
        const ink = is ? 'var(--accent, var(--leaf))' : 'var(--ink)';
        const colour = is ? 'var(--accent, var(--leaf))' : slot === null ? 'var(--mark-8)' : markColour(slot);
        const interval = onRail(r, metric);
        return [
          words(22, line, placeParts(r)[0], { end: true, fill: 'var(--ink-2)', size: 14, weight: 600 }),
          words(27, line, placeParts(r)[1], { fill: 'var(--ink-2)', size: 11 }),
          words(NAME, line, toldApart(r.configuration, all), {
            fill: ink,
            weight: is ? 600 : 400,
            most: on.nameRoom - NAME,
          }),
          stroke(left, y, left + room, y, 'var(--hair-2)'),
          interval ? stroke(x(interval.low), y, x(interval.high), y, ink, 2.4) : '',
          slot === null
            ? `<circle cx="${x(r.merit!).toFixed(1)}" cy="${y.toFixed(1)}" r="5" fill="${r.status === 'PLACED' ? colour : 'var(--paper)'}" stroke="${colour}" stroke-width="1.5"/>`
            : `<path transform="translate(${x(r.merit!).toFixed(1)} ${y.toFixed(1)})" d="${markPath(slot, 5.5)}" fill="${colour}"/>`,
          words(on.width, line, shownOf(r), { end: true, weight: 600, fill: ink }),
        ];
      }),
    ];
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
