import type { Schemas } from '../../api/client.ts';
import { drawBars, directionWords, unitWords } from './bars.ts';
import { svgOf, words, type Drawn } from './drawn.ts';

type Asked = Schemas['AskedValues'];

/** Bars of one chart; further ones are told by their number. */
export const MOST_BARS = 20;
const [HEAD, GAP] = [34, 26];

export interface Chart {
  metric: Asked['metrics'][number];
  drawn: Drawn;
}

/** A chart for each test, each with whoever has a value or tried and failed. */
export function chartsOf(asked: Asked, highlight: number | undefined, most = MOST_BARS): Chart[] {
  return asked.metrics.flatMap((metric, j): Chart[] => {
    const rows = asked.rows
      .map((r) => ({ ...r, values: [r.values[j]!] }))
      .filter((r) => r.values[0]!.value !== undefined || r.values[0]!.ended !== undefined);
    const drawn = drawBars(
      { ...asked, metrics: [metric], rows, published: asked.published.filter((p) => p.metricId === metric.id) },
      'best',
      highlight,
      most,
    );
    return drawn ? [{ metric, drawn }] : [];
  });
}

/** How a chart is headed: test, unit, and which way is better. */
export function chartHeading(metric: Chart['metric']): [string, string] {
  const unit = unitWords(metric);
  return [metric.name, `${unit ? `${unit}, ` : ''}${directionWords(metric)}`];
}

/** All of them below one another, as one figure. */
export function drawCharts(asked: Asked, highlight: number | undefined): Drawn | undefined {
  const charts = chartsOf(asked, highlight);
  if (charts.length === 0) return undefined;
  const stack = (of: (d: Drawn) => { svg: string; width: number; height: number }) => {
    let y = 0;
    const parts = charts.map(({ metric, drawn }) => {
      const { svg, height, width } = of(drawn);
      const [name, how] = chartHeading(metric);
      const inner = svg.replace(/^<svg[^>]*>/, '').replace(/<\/svg>$/, '');
      const part =
        words(0, y + 18, name, { size: 15, weight: 600, most: width * 0.6 }) +
        words(width, y + 18, how, { size: 12, end: true, fill: 'var(--ink-2)' }) +
        `<g transform="translate(0 ${(y + HEAD).toFixed(1)})">${inner}</g>`;
      y += HEAD + height + GAP;
      return part;
    });
    return { svg: svgOf(of(charts[0]!.drawn).width, y - GAP, parts), height: y - GAP };
  };
  const page = stack((d) => d);
  const phone = stack((d) => sizeOf(d.narrow!));
  const failed = charts.flatMap(({ drawn }) => drawn.rows.filter((r) => r.at(-1) !== '')).length;
  return {
    svg: page.svg,
    narrow: phone.svg,
    width: charts[0]!.drawn.width,
    height: page.height,
    caption: `A chart for each of ${charts.length} tests, best first; bars begin at zero, lines are 95 % intervals.${asked.rows.length > MOST_BARS ? ` The first ${MOST_BARS} of each are shown.` : ''}${failed > 0 ? ` ${failed} ${failed === 1 ? 'run' : 'runs'} gave no score and ${failed === 1 ? 'is' : 'are'} named.` : ''}`,
    alt: charts.map((c) => c.drawn.alt).join(' '),
    columns: ['test', 'unit', 'device', 'value', '95 % low', '95 % high', 'runs', 'why there is none'],
    rows: charts.flatMap(({ metric, drawn }) =>
      drawn.rows.map(([device = '', ...rest]) => [metric.name, unitWords(metric), device, ...rest]),
    ),
    asks: charts.flatMap(({ drawn }) => (drawn.asks ?? []).map((row) => [undefined, undefined, ...row])),
  };
}

/** A phone's form says its size itself. */
function sizeOf(svg: string): { svg: string; width: number; height: number } {
  const [, width, height] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg) ?? [];
  return { svg, width: Number(width), height: Number(height) };
}
