import { scaleLinear, scaleLog } from 'd3-scale';
import type { Schemas } from '../../api/client.ts';
import { index, number, quantity } from '../../format/format.ts';
import { named, toldApart } from '../../format/named.ts';
import type { Standings } from '../../standings/question/ask.ts';
import { placeLabels } from '../../standings/plot/labels.ts';
import { standingWords, type AskedStanding } from '../question/asked.ts';
import { stroke, words, type Drawn } from './drawn.ts';
import { bothWidths } from './rows.ts';

type Against = Schemas['Against'];

const [HEIGHT, LEFT, RIGHT, TOP, FOOT] = [380, 50, 14, 14, 42];

/** Index against a quantity such as the price; those that nobody beats in both are joined by a line. */
export function drawValue(
  against: Against,
  standings: Standings,
  question: AskedStanding & { highlight?: number | undefined },
): Drawn | undefined {
  const { highlight } = question;
  const rows = new Map(standings.rows.map((r) => [r.configuration.id, r]));
  const points = against.points
    .flatMap((p) => {
      const row = rows.get(p.configurationId);
      const height = p.value ?? p.index;
      return row && height !== undefined ? [{ ...p, height, configuration: row.configuration }] : [];
    })
    .sort((a, b) => a.x - b.x || a.height - b.height);
  if (points.length < 2) return undefined;
  const all = points.map((p) => p.configuration);
  const xs = points.map((p) => p.x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const ys = points.map((p) => p.height);
  // As in the view: one test by itself has values in its unit, and better is up.
  const one = standings.per === undefined ? standings.metric : undefined;
  const apart = one?.scale === 'DIFFERENCE';
  const pad = (Math.max(...ys) - Math.min(...ys) || 1) * 0.08;
  const [least, most] = apart
    ? [Math.min(...ys) - pad, Math.max(...ys) + pad]
    : [Math.min(...ys) / 1.08, Math.max(...ys) * 1.08];
  const up = (apart ? scaleLinear() : scaleLog())
    .domain(one?.direction === 'LESS_IS_BETTER' ? [most, least] : [least, most])
    .range([HEIGHT - FOOT, TOP]);
  const said = (height: number) => (one ? quantity(height, one.unit) : index(height));
  const line = points.filter((p) => p.frontier);
  const q = against.quantity;
  const best = line.map((p) => toldApart(p.configuration, all));
  const mark = points.find((p) => p.configurationId === highlight);
  const drawing = bothWidths((width, phone) => {
    const across = (
      low > 0 && high / low > 6
        ? scaleLog().domain([low / 1.12, high * 1.12])
        : scaleLinear().domain([low - (high - low || 1) * 0.06, high + (high - low || 1) * 0.06])
    ).range([LEFT, width - RIGHT]);
    const at = points.map((p) => ({ x: across(p.x), y: up(p.height) }));
    const labels = placeLabels(
      points.map((p, i) => ({
        ...at[i]!,
        text: toldApart(p.configuration, all),
        weight: (p.configurationId === highlight ? 4 : 0) + (p.frontier ? 2 : 0) + i / -1e6,
      })),
      width,
      HEIGHT - FOOT,
    );
    const parts = [
      stroke(LEFT, HEIGHT - FOOT, width - RIGHT, HEIGHT - FOOT, 'var(--hair)'),
      stroke(LEFT, TOP, LEFT, HEIGHT - FOOT, 'var(--hair)'),
      ...across
        .ticks(phone ? 3 : 5)
        .map((t) =>
          words(
            across(t),
            HEIGHT - FOOT + 18,
            against.date
              ? new Date(t * 86_400_000).toISOString().slice(0, 7)
              : q.unit === 'By'
                ? quantity(t, 'B')
                : number(t, 3),
            { size: 12, middle: true, fill: 'var(--ink-2)' },
          ),
        ),
      ...up
        .ticks(4)
        .map((t) => words(LEFT - 7, up(t) + 4, number(t, 3), { size: 12, end: true, fill: 'var(--ink-2)' })),
      words(
        width - RIGHT,
        HEIGHT - 6,
        against.date || q.unit === '' || q.unit === '1' || q.unit === 'By' ? q.label : `${q.label}, ${q.unit}`,
        { size: 12, end: true, fill: 'var(--ink-2)' },
      ),
      line.length > 1
        ? `<path d="${line.map((p, i) => `${i === 0 ? 'M' : 'L'}${across(p.x).toFixed(1)} ${up(p.height).toFixed(1)}`).join('')}" fill="none" stroke="var(--leaf)" stroke-width="1.6"/>`
        : '',
      ...points.map((p, i) => {
        const is = p === mark;
        const colour = is ? 'var(--accent, var(--leaf))' : p.frontier ? 'var(--leaf)' : 'var(--mark-8)';
        return `<circle cx="${at[i]!.x.toFixed(1)}" cy="${at[i]!.y.toFixed(1)}" r="${is ? 7 : 5}" fill="${p.frontier || is ? colour : 'var(--paper)'}" stroke="${colour}" stroke-width="2"/>`;
      }),
      ...labels.map((l) => {
        const p = points[l.of]!;
        return words(l.x, l.y, toldApart(p.configuration, all), {
          size: 12,
          end: l.anchor === 'end',
          middle: l.anchor === 'middle',
          fill: p === mark ? 'var(--accent, var(--leaf))' : 'var(--ink)',
          weight: p === mark ? 600 : 400,
        });
      }),
    ];
    return { parts, height: HEIGHT };
  });
  return {
    ...drawing,
    caption: `${one ? one.name : 'Index'} ${standingWords(standings, question)}, against ${q.label.toLowerCase()}; filled and joined are those that nothing beats in both.${against.without > 0 ? ` ${against.without} without a known ${q.label.toLowerCase()} are left out.` : ''}`,
    alt: `${points.length} configurations by ${one ? one.name : 'index'} and ${q.label.toLowerCase()}. Nothing beats ${best.join(', ')} in both.${mark ? ` ${toldApart(mark.configuration, all)} has ${one ? '' : 'index '}${said(mark.height)} at ${mark.shown}.` : ''}`,
    columns: ['configuration', q.label, one ? one.name : 'index', 'nothing better in both'],
    rows: points.map((p) => [named(p.configuration), p.shown, said(p.height), p.frontier ? 'yes' : '']),
  };
}
