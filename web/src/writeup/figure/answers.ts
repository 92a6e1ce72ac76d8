import { api, value } from '../../api/client.ts';
import { askOf, type AskedStanding, type ComparedBy, type StandingsAsk } from '../question/asked.ts';
import type { FigureQuestion } from '../question/questions.ts';

/** Answers are asked again when somebody comes back to the window, and at the latest after this. */
const FRESH_MS = 60_000;

/** One configuration held against another, by what Compare was asked. */
export const compared = (configuration: number, base: number, by?: ComparedBy) => ({
  queryKey: ['comparison', 'write-up', base, configuration, by ?? {}],
  queryFn: () => value(api.GET('/api/compare', { params: { query: { base, with: [configuration], ...by } } })),
  staleTime: FRESH_MS,
  retry: false,
});
export const valuesOf = (ids: number[], metrics: number[]) => ({
  queryKey: ['values', ids, metrics],
  queryFn: () => value(api.GET('/api/compare/values', { params: { query: { ids, metrics } } })),
  staleTime: FRESH_MS,
  retry: false,
});
export const configurationOf = (id: number) => ({
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

export const trendOf = ({ model, unit, along, by }: FigureQuestion & { of: 'trend' }) => ({
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

export const againstOf = (quantity: string, of: AskedStanding) => ({
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
export const sessionsOf = (asked: StandingsAsk | undefined): ComparedBy | undefined =>
  asked?.take && { take: asked.take, baseTake: asked.take };

/** Where a configuration stands in each of its tests. */
export const cardOf = (q: FigureQuestion & { of: 'card' }) => ({
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

/** Everything that the readings of a test hold: curves and frame times too. */
export const readingsOf = (ids: number[], metric: number) => ({
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
