import type { Schemas } from '../../api/client.ts';
import type { FigureQuestion } from '../question/questions.ts';
import {
  againstOf,
  cardOf,
  chartsOfStanding,
  compared,
  factorsOf,
  readingsOf,
  sessionsOf,
  standingOf,
  trendOf,
  valuesOf,
} from './answers.ts';
import { drawBarGroups } from './bar-groups.ts';
import { drawBars } from './bars.ts';
import { drawCard } from './card-rows.ts';
import { drawCharts } from './charts.ts';
import { drawCurves } from './curve-lines.ts';
import type { Drawn } from './drawn.ts';
import { drawFactors } from './factor-cells.ts';
import { drawFrames } from './frame-times.ts';
import { drawRatios } from './ratio-rows.ts';
import { drawStanding } from './standing-rows.ts';
import { drawTrend } from './trend-lines.ts';
import { drawValue } from './value-points.ts';

export type FigureKind = FigureQuestion['of'];
type Of<K extends FigureKind> = Extract<FigureQuestion, { of: K }>;
type Query = { queryKey: unknown[]; queryFn: () => Promise<unknown> };

interface Kind<K extends FigureKind> {
  /** What it is called where one is chosen. */
  label: string;
  /** What it is drawn from, in the order in which it is taken. */
  sources: (q: Of<K>) => Query[];
  draw: (q: Of<K>, from: unknown[]) => Drawn | undefined;
  /** Said where it shows nothing, if that is more than that nothing was measured. */
  nothing?: string;
}

/** Every kind of figure, in the order in which they are offered. A new one is a line here and a file that draws it. */
const KINDS: { [K in FigureKind]: Kind<K> } = {
  bars: {
    label: 'bars of a test',
    sources: (q) => [valuesOf(q.configurations, [q.metric, ...(q.beside ?? []).filter((m) => m !== q.metric)])],
    draw: (q, from) => {
      const asked = from[0] as Schemas['AskedValues'];
      const drawing = asked.metrics.length > 1 ? drawBarGroups : drawBars;
      return drawing(asked, q.order ?? 'best', q.highlight);
    },
  },
  charts: {
    label: 'a chart for each test',
    sources: (q) => [chartsOfStanding(q.asked)],
    draw: (q, from) => drawCharts(from[0] as Schemas['AskedValues'], q.highlight),
  },
  ratios: {
    label: 'ratios of two configurations',
    sources: (q) => [compared(q.configuration, q.base, q.by)],
    draw: (q, from) => drawRatios(from[0] as Schemas['Comparison'], q.metrics, q.by),
  },
  standing: {
    label: 'a standing',
    sources: (q) => [standingOf(q)],
    draw: (q, from) => drawStanding(from[0] as Schemas['Standings'], q),
  },
  card: {
    label: 'a report card',
    sources: (q) => [
      cardOf(q),
      ...(q.base === undefined ? [] : [compared(q.configuration, q.base, sessionsOf(q.asked))]),
    ],
    draw: (_, from) => drawCard(from[0] as Schemas['ReportCard'], from[1] as Schemas['Comparison'] | undefined),
  },
  value: {
    label: 'best value',
    sources: (q) => [againstOf(q.quantity, q), standingOf(q)],
    draw: (q, from) => drawValue(from[0] as Schemas['Against'], from[1] as Schemas['Standings'], q),
  },
  trend: {
    label: 'a trend',
    sources: (q) => [trendOf(q)],
    draw: (q, from) => drawTrend(from[0] as Schemas['Trends'], q.by),
  },
  curves: {
    label: 'curves',
    sources: (q) => [readingsOf(q.configurations, q.metric), valuesOf(q.configurations, [q.metric])],
    draw: (q, from) => drawCurves(from[0] as Schemas['ComparedMetric'], rowsOf(from[1]), q.highlight),
  },
  frames: {
    label: 'frame times',
    sources: (q) => [readingsOf(q.configurations, q.metric), valuesOf(q.configurations, [q.metric])],
    draw: (q, from) => drawFrames(from[0] as Schemas['ComparedMetric'], rowsOf(from[1]), q.highlight),
  },
  factors: {
    label: 'two factors',
    sources: (q) => [factorsOf(q)],
    draw: (_, from) => drawFactors(from[0] as Schemas['FactorGrid']),
    nothing: 'Two factors need configurations that differ in two facts, in two ways each.',
  },
};

const rowsOf = (asked: unknown) => (asked as Schemas['AskedValues']).rows.map((r) => r.configuration);

/** What a figure can show, to choose from. */
export const FIGURE_FORMS = (Object.keys(KINDS) as FigureKind[]).map((value) => ({ value, label: KINDS[value].label }));

/** The types of one kind belong together, which a table cannot say. */
const kindOf = (q: FigureQuestion) => KINDS[q.of] as unknown as Kind<FigureKind>;

export const sourcesOf = (q: FigureQuestion): Query[] => kindOf(q).sources(q);
export const draw = (q: FigureQuestion, from: unknown[]): Drawn | undefined => kindOf(q).draw(q, from);
export const nothingWords = (q: FigureQuestion): string =>
  kindOf(q).nothing ?? 'Nothing that it asks for was measured.';
