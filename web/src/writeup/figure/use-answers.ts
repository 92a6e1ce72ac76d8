import { useQueries, type UseQueryResult } from '@tanstack/react-query';
import { api, value, type Schemas } from '../../api/client.ts';
import { drawBarGroups } from './bar-groups.ts';
import { drawBars } from './bars.ts';
import { drawCard } from './card-rows.ts';
import { drawCharts } from './charts.ts';
import { drawCurves } from './curve-lines.ts';
import type { Drawn } from './drawn.ts';
import { drawFactors } from './factor-cells.ts';
import { drawFrames } from './frame-times.ts';
import { liveFact, liveOverall, liveRatio, liveValue, missing, type LiveNumber } from '../question/number-words.ts';
import { askOf, type AskedStanding, type ComparedBy, type StandingsAsk } from '../question/asked.ts';
import type { FigureQuestion, NumberQuestion, Numbers } from '../question/questions.ts';
import { drawRatios } from './ratio-rows.ts';
import { drawStanding } from './standing-rows.ts';
import { drawTrend } from './trend-lines.ts';
import { drawValue } from './value-points.ts';

/** Answers are asked again when somebody comes back to the window, and at the latest after this. */
const FRESH_MS = 60_000;

/** One configuration held against another, by what Compare was asked. */
export const compared = (configuration: number, base: number, by?: ComparedBy) => ({
  queryKey: ['comparison', 'write-up', base, configuration, by ?? {}],
  queryFn: () => value(api.GET('/api/compare', { params: { query: { base, with: [configuration], ...by } } })),
  staleTime: FRESH_MS,
  retry: false,
});
const valuesOf = (ids: number[], metrics: number[]) => ({
  queryKey: ['values', ids, metrics],
  queryFn: () => value(api.GET('/api/compare/values', { params: { query: { ids, metrics } } })),
  staleTime: FRESH_MS,
  retry: false,
});
const configurationOf = (id: number) => ({
  queryKey: ['configuration', id],
  queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id } } })),
  staleTime: FRESH_MS,
  retry: false,
});
/** A standing by what Standings was asked, or of one class. */
export const standingOf = (of: AskedStanding) => ({
  queryKey: ['standings', 'write-up', askOf(of)],
  queryFn: () => value(api.GET('/api/standings', { params: { query: askOf(of) } })),
  staleTime: FRESH_MS,
  retry: false,
});

const trendOf = ({ model, unit, along, by }: FigureQuestion & { of: 'trend' }) => ({
  queryKey: ['trends', 'write-up', model, unit ?? 0, along ?? '', by ?? {}],
  queryFn: () =>
    value(
      api.GET('/api/trends', {
        params: {
          query: { ...by, model, ...(unit === undefined ? {} : { unit }), ...(along === undefined ? {} : { along }) },
        },
      }),
    ),
  staleTime: FRESH_MS,
  retry: false,
});

const againstOf = (quantity: string, of: AskedStanding) => ({
  queryKey: ['standings', 'against', 'write-up', quantity, askOf(of)],
  queryFn: () => value(api.GET('/api/standings/against', { params: { query: { quantity, ...askOf(of) } } })),
  staleTime: FRESH_MS,
  retry: false,
});

/** Values of everybody in a standing. */
export const chartsOfStanding = (asked: StandingsAsk) => ({
  queryKey: ['values', 'charts', asked],
  queryFn: () => value(api.GET('/api/compare/charts', { params: { query: asked } })),
  staleTime: FRESH_MS,
  retry: false,
});

/** The sessions of a standing, as Compare is asked for them. */
const sessionsOf = (asked: StandingsAsk | undefined): ComparedBy | undefined =>
  asked?.take && { take: asked.take, baseTake: asked.take };

/** Where a configuration stands in each of its tests. */
const cardOf = (q: FigureQuestion & { of: 'card' }) => ({
  queryKey: ['report-card', q.configuration, q.asked ?? {}],
  queryFn: () =>
    value(
      api.GET('/api/configurations/{id}/report-card', {
        params: { path: { id: q.configuration }, query: q.asked ?? {} },
      }),
    ),
  staleTime: FRESH_MS,
  retry: false,
});

/** A number as it is now, or why there is none. */
export type NumberNow = { state: 'waiting' } | { state: 'known'; now: LiveNumber } | { state: 'gone'; why: string };

type Source = Schemas['Comparison'] | Schemas['AskedValues'] | Schemas['ConfigurationPage'];

function sourceOf(q: NumberQuestion) {
  switch (q.of) {
    case 'ratio':
    case 'overall':
      return compared(q.configuration, q.base, q.by);
    case 'value':
      return valuesOf([q.configuration], []);
    case 'fact':
      return configurationOf(q.configuration);
  }
}

function read(q: NumberQuestion, source: Source): LiveNumber | string {
  switch (q.of) {
    case 'ratio': {
      const comparison = source as Schemas['Comparison'];
      const row = comparison.rows.find((r) => r.metric.id === q.metric);
      const cell = row?.cells[0];
      const now = row && cell && liveRatio(cell, row.metric, comparison.sides[0]!.configuration, comparison, q.by);
      return now ?? missing(cell);
    }
    case 'overall': {
      const comparison = source as Schemas['Comparison'];
      const side = comparison.sides[0]!;
      return liveOverall(side, comparison, q.by) ?? side.noOverall ?? 'there is no overall';
    }
    case 'value': {
      const asked = source as Schemas['AskedValues'];
      const at = asked.metrics.findIndex((m) => m.id === q.metric);
      const row = asked.rows[0];
      const of = row?.values[at];
      return (of && liveValue(of, asked.metrics[at]!, row.configuration)) ?? missing(of);
    }
    case 'fact':
      return liveFact(source as Schemas['ConfigurationPage'], q.key) ?? 'this fact is not noted';
  }
}

/** Every number of a piece. Those of one comparison are asked once. */
export function useNumbers(numbers: Numbers | undefined): Record<string, NumberNow> {
  const entries = Object.entries(numbers ?? {});
  const sources = new Map(entries.map(([, q]) => [JSON.stringify(sourceOf(q).queryKey), sourceOf(q)]));
  const keys = [...sources.keys()];
  const answers = useQueries({ queries: [...sources.values()] as ReturnType<typeof compared>[] });
  return Object.fromEntries(
    entries.map(([id, q]): [string, NumberNow] => {
      const answer = answers[keys.indexOf(JSON.stringify(sourceOf(q).queryKey))] as UseQueryResult<Source, Error>;
      if (answer.data === undefined)
        return [id, answer.isError ? { state: 'gone', why: answer.error.message } : { state: 'waiting' }];
      const found = read(q, answer.data);
      return [id, typeof found === 'string' ? { state: 'gone', why: found } : { state: 'known', now: found }];
    }),
  );
}

export type FigureNow = { state: 'waiting' } | { state: 'drawn'; drawn: Drawn } | { state: 'nothing'; why: string };

/** Everything that the readings of a test hold: curves and frame times too. */
const readingsOf = (ids: number[], metric: number) => ({
  queryKey: ['compared-metric', 'write-up', metric, ids],
  queryFn: () =>
    value(api.GET('/api/compare/metrics/{metricId}', { params: { path: { metricId: metric }, query: { ids } } })),
  staleTime: FRESH_MS,
  retry: false,
});

/** A grid of two facts. */
export const factorsOf = (q: FigureQuestion & { of: 'factors' }) => ({
  queryKey: ['factors', 'write-up', q],
  queryFn: () =>
    value(
      api.GET('/api/compare/factors', {
        params: {
          query: {
            ids: q.configurations,
            ...(q.first ? { first: q.first } : {}),
            ...(q.second ? { second: q.second } : {}),
            ...(q.metric ? { metric: q.metric } : {}),
          },
        },
      }),
    ),
  staleTime: FRESH_MS,
  retry: false,
});

type Query = { queryKey: unknown[]; queryFn: () => Promise<unknown> };

/** What a figure is drawn from, in the order in which {@link draw} takes it. */
function sourcesOf(q: FigureQuestion): Query[] {
  switch (q.of) {
    case 'bars':
      return [valuesOf(q.configurations, [q.metric, ...(q.beside ?? []).filter((m) => m !== q.metric)])];
    case 'curves':
    case 'frames':
      return [readingsOf(q.configurations, q.metric), valuesOf(q.configurations, [q.metric])];
    case 'factors':
      return [factorsOf(q)];
    case 'ratios':
      return [compared(q.configuration, q.base, q.by)];
    case 'standing':
      return [standingOf(q)];
    case 'value':
      return [againstOf(q.quantity, q), standingOf(q)];
    case 'charts':
      return [chartsOfStanding(q.asked)];
    case 'card':
      return [cardOf(q), ...(q.base === undefined ? [] : [compared(q.configuration, q.base, sessionsOf(q.asked))])];
    case 'trend':
      return [trendOf(q)];
  }
}

function draw(q: FigureQuestion, from: unknown[]): Drawn | undefined {
  switch (q.of) {
    case 'bars': {
      const asked = from[0] as Schemas['AskedValues'];
      const drawing = asked.metrics.length > 1 ? drawBarGroups : drawBars;
      return drawing(asked, q.order ?? 'best', q.highlight);
    }
    case 'curves':
    case 'frames': {
      const drawing = q.of === 'curves' ? drawCurves : drawFrames;
      const rows = (from[1] as Schemas['AskedValues']).rows.map((r) => r.configuration);
      return drawing(from[0] as Schemas['ComparedMetric'], rows, q.highlight);
    }
    case 'factors':
      return drawFactors(from[0] as Schemas['FactorGrid']);
    case 'ratios':
      return drawRatios(from[0] as Schemas['Comparison'], q.metrics, q.by);
    case 'standing':
      return drawStanding(from[0] as Schemas['Standings'], q);
    case 'value':
      return drawValue(from[0] as Schemas['Against'], from[1] as Schemas['Standings'], q);
    case 'charts':
      return drawCharts(from[0] as Schemas['AskedValues'], q.highlight);
    case 'card':
      return drawCard(from[0] as Schemas['ReportCard'], from[1] as Schemas['Comparison'] | undefined);
    case 'trend':
      return drawTrend(from[0] as Schemas['Trends'], q.by);
  }
}

/** A figure as its question is answered now. */
export function useFigure(question: FigureQuestion): FigureNow {
  const nobody = 'configurations' in question && question.configurations.length === 0;
  const answers = useQueries({ queries: nobody ? [] : (sourcesOf(question) as ReturnType<typeof compared>[]) });
  if (nobody) return { state: 'nothing', why: 'Nobody is chosen for it yet.' };
  const failed = answers.find((a) => a.isError);
  if (failed) return { state: 'nothing', why: failed.error.message };
  if (answers.some((a) => a.data === undefined)) return { state: 'waiting' };
  const drawn = draw(
    question,
    answers.map((a) => a.data),
  );
  return drawn ? { state: 'drawn', drawn } : { state: 'nothing', why: nothingWords(question) };
}

function nothingWords(q: FigureQuestion): string {
  if (q.of === 'factors') return 'Two factors need configurations that differ in two facts, in two ways each.';
  return 'Nothing that it asks for was measured.';
}

/** The pages of configurations, in the order they are asked for; those that are gone are left out. */
export function useConfigurations(ids: readonly number[]) {
  const all = useQueries({ queries: ids.map(configurationOf) });
  return { pages: all.flatMap((q) => (q.data ? [q.data] : [])), waiting: all.some((q) => q.isPending) };
}
