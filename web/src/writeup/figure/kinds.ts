import type { Schemas } from '../../api/client.ts';
import type { DeviceClass } from '../../format/format.ts';
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

/** What a figure that is begun can be about. */
export interface Given {
  configurations: number[];
  /** Of the first of them. */
  first: { modelId: number; deviceClass: DeviceClass } | undefined;
  metrics: { id: number; kind: string }[];
  quantity: string | undefined;
}

interface Kind<K extends FigureKind> {
  /** What it is called where one is chosen. */
  label: string;
  /** What it shows before anything else is chosen. */
  begin: (given: Given) => Of<K>;
  /** What it is drawn from, in the order in which it is taken. */
  sources: (q: Of<K>) => Query[];
  draw: (q: Of<K>, from: unknown[]) => Drawn | undefined;
  /** Said where it shows nothing, if that is more than that nothing was measured. */
  nothing?: string;
}

const one = (given: Given) => given.configurations[0] ?? 0;
const classOf = (given: Given) => (given.first ? { deviceClass: [given.first.deviceClass] } : {});
/** Whether a figure of this kind can show the readings of a metric: curves and frame times have figures of their own. */
export const shows = (of: FigureKind, metric: { kind: string }): boolean =>
  of === 'curves'
    ? metric.kind === 'CURVE'
    : of === 'frames'
      ? metric.kind === 'FRAME_TIMES'
      : metric.kind !== 'CURVE' && metric.kind !== 'FRAME_TIMES';
const ofMetric = (given: Given, of: FigureKind, most: number) => ({
  metric: given.metrics.find((m) => shows(of, m))?.id ?? 0,
  configurations: given.configurations.slice(0, most),
  highlight: one(given),
});

/** Every kind of figure, in the order in which they are offered. A new one is a line here and a file that draws it. */
const KINDS: { [K in FigureKind]: Kind<K> } = {
  bars: {
    label: 'bars of a test',
    begin: (given) => ({ of: 'bars', ...ofMetric(given, 'bars', 12) }),
    sources: (q) => [valuesOf(q.configurations, [q.metric, ...(q.beside ?? []).filter((m) => m !== q.metric)])],
    draw: (q, from) => {
      const asked = from[0] as Schemas['AskedValues'];
      const drawing = asked.metrics.length > 1 ? drawBarGroups : drawBars;
      return drawing(asked, q.order ?? 'best', q.highlight);
    },
  },
  charts: {
    label: 'a chart for each test',
    begin: (given) => ({ of: 'charts', asked: classOf(given), highlight: one(given) }),
    sources: (q) => [chartsOfStanding(q.asked)],
    draw: (q, from) => drawCharts(from[0] as Schemas['AskedValues'], q.highlight),
  },
  ratios: {
    label: 'ratios of two configurations',
    begin: (given) => ({ of: 'ratios', configuration: one(given), base: given.configurations[1] ?? one(given) }),
    sources: (q) => [compared(q.configuration, q.base, q.by)],
    draw: (q, from) => drawRatios(from[0] as Schemas['Comparison'], q.metrics, q.by),
  },
  standing: {
    label: 'a standing',
    begin: (given) => ({ of: 'standing', highlight: one(given) }),
    sources: (q) => [standingOf(q)],
    draw: (q, from) => drawStanding(from[0] as Schemas['Standings'], q),
  },
  card: {
    label: 'a report card',
    begin: (given) => ({ of: 'card', configuration: one(given), ...(given.first && { asked: classOf(given) }) }),
    sources: (q) => [
      cardOf(q),
      ...(q.base === undefined ? [] : [compared(q.configuration, q.base, sessionsOf(q.asked))]),
    ],
    draw: (_, from) => drawCard(from[0] as Schemas['ReportCard'], from[1] as Schemas['Comparison'] | undefined),
  },
  value: {
    label: 'best value',
    begin: (given) => ({ of: 'value', quantity: given.quantity ?? 'price', highlight: one(given) }),
    sources: (q) => [againstOf(q.quantity, q), standingOf(q)],
    draw: (q, from) => drawValue(from[0] as Schemas['Against'], from[1] as Schemas['Standings'], q),
  },
  trend: {
    label: 'a trend',
    begin: (given) => ({ of: 'trend', model: given.first?.modelId ?? 0 }),
    sources: (q) => [trendOf(q)],
    draw: (q, from) => drawTrend(from[0] as Schemas['Trends'], q.by),
  },
  curves: {
    label: 'curves',
    begin: (given) => ({ of: 'curves', ...ofMetric(given, 'curves', 6) }),
    sources: (q) => [readingsOf(q.configurations, q.metric), valuesOf(q.configurations, [q.metric])],
    draw: (q, from) => drawCurves(from[0] as Schemas['ComparedMetric'], rowsOf(from[1]), q.highlight),
  },
  frames: {
    label: 'frame times',
    begin: (given) => ({ of: 'frames', ...ofMetric(given, 'frames', 6) }),
    sources: (q) => [readingsOf(q.configurations, q.metric), valuesOf(q.configurations, [q.metric])],
    draw: (q, from) => drawFrames(from[0] as Schemas['ComparedMetric'], rowsOf(from[1]), q.highlight),
  },
  factors: {
    label: 'two factors',
    begin: (given) => ({ of: 'factors', configurations: given.configurations }),
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

export const beginFigure = (of: FigureKind, given: Given): FigureQuestion => KINDS[of].begin(given);
export const sourcesOf = (q: FigureQuestion): Query[] => kindOf(q).sources(q);
export const draw = (q: FigureQuestion, from: unknown[]): Drawn | undefined => kindOf(q).draw(q, from);
export const nothingWords = (q: FigureQuestion): string =>
  kindOf(q).nothing ?? 'Nothing that it asks for was measured.';
