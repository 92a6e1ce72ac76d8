import type { Schemas } from '../../api/client.ts';
import { reading } from '../../format/format.ts';
import { framed, HEIGHT, lines, rule, text, WIDTH, type Paint } from '../../export/page.ts';

const [EDGE, TOP, NAMES] = [80, 300, 600];

/** The single readings of each side as dots on one line each, right is better; those set aside are hollow. @param x of a value from 0 to 1 */
export function readingsFigure(
  data: Schemas['ComparedMetric'],
  named: (id: number) => string,
  marks: readonly { path: string; colour: string }[],
  x: (value: number) => number,
  ends: readonly [number, number],
  sentence: string,
  paint: Paint,
  font: string,
): string {
  const { metric } = data;
  const step = Math.min(120, (HEIGHT - TOP - 170) / data.sides.length);
  const room = WIDTH - 2 * EDGE - NAMES;
  const at = (value: number) => (EDGE + NAMES + x(value) * room).toFixed(1);
  const rows = data.sides.flatMap((side, i) => {
    const y = TOP + i * step;
    const mark = marks[i]!;
    return [
      text(EDGE, y + 8, named(side.configurationId), 25, paint.ink, { weight: i === 0 ? 600 : 400, most: NAMES - 30 }),
      rule(EDGE + NAMES, y, room, paint.hair),
      ...side.readings.map(
        (r) =>
          `<path transform="translate(${at(r.value)} ${y.toFixed(1)}) scale(1.5)" d="${mark.path}" fill="${r.asideReason === undefined ? mark.colour : 'none'}" stroke="${mark.colour}"/>`,
      ),
    ];
  });
  const foot = TOP + data.sides.length * step;
  return framed(paint.paper, font, [
    text(EDGE, 92, metric.name, 42, paint.ink, { weight: 600, most: WIDTH - 2 * EDGE }),
    text(EDGE, 134, `${metric.suite} ${metric.version}, each dot a reading; the first is the base`, 25, paint.quiet),
    lines(EDGE, 182, sentence, 25, paint.ink, WIDTH - 2 * EDGE).drawn,
    ...rows,
    text(EDGE + NAMES, foot, reading(ends[0], metric), 23, paint.quiet),
    text(WIDTH - EDGE, foot, reading(ends[1], metric), 23, paint.quiet, { end: true }),
    text(EDGE, HEIGHT - 28, 'Right is better; hollow dots were set aside.', 20, paint.quiet),
    text(WIDTH - EDGE, HEIGHT - 28, 'Yarrowmark', 20, paint.quiet, { end: true }),
  ]);
}
