import { api, value, type Schemas } from '../../api/client.ts';
import { named } from '../../format/named.ts';
import type { ComparedBy, StandingsAsk, TrendBy } from './asked.ts';
import type { Bodies, FigureQuestion, PieceKind } from './questions.ts';

type NewPiece = { [K in PieceKind]: { kind: K; body: Bodies[K] } }[PieceKind];
type Configuration = Schemas['ConfigurationRow'];
export type Kind = Schemas['KindRow'];
export type Begins = Kind['begins'];

/** What a write-up is begun from: who is on the screen, and as what. */
export interface Beginning {
  begins: Begins;
  title: string;
  models: readonly number[];
  /** Who it is about, the first one most of all. */
  shown: readonly Configuration[];
  base?: Configuration | undefined;
  /** Whoever else is on the screen. */
  beside?: readonly Configuration[] | undefined;
  /** What the view asks beside who is compared. */
  by?: ComparedBy | undefined;
  /** What the view asks of a standing. */
  asked?: StandingsAsk | undefined;
  deviceClass?: Configuration['deviceClass'] | undefined;
  /** A figure that is on the screen, before all others. */
  figure?: FigureQuestion | undefined;
  trend?:
    | {
        model: number;
        unit?: number | undefined;
        along: string;
        by?: TrendBy | undefined;
        configurations: number[];
      }
    | undefined;
}

export const BEGINS_WORDS: Record<Begins, string> = {
  MODEL: 'a device by itself',
  COMPARISON: 'a device against another',
  STANDING: 'a standing',
  TREND: 'a trend',
};

/** The kinds of write-ups of this lab. */
export const kindsQuery = {
  queryKey: ['write-up-kinds'],
  queryFn: () => value(api.GET('/api/write-up-kinds')),
  staleTime: 60_000,
};

export function aboutThese(
  shown: readonly Configuration[],
  base: Configuration | undefined,
  by?: ComparedBy,
): Beginning {
  const first = shown[0] ?? base;
  const against = base !== undefined && first !== undefined && base.id !== first.id;
  return {
    begins: against ? 'COMPARISON' : 'MODEL',
    title: first
      ? against
        ? `${first.maker} ${first.model} against ${base.maker} ${base.model}`
        : named(first)
      : 'A new write-up',
    models: [...shown, ...(base ? [base] : [])].map((c) => c.modelId),
    shown: shown.length > 0 ? shown : base ? [base] : [],
    base: against ? base : undefined,
    by,
    // A standing beside the comparison answers the same question, so that both say the same of these two.
    asked: by && first && standingBy(by, first, against ? base : undefined),
    deviceClass: first?.deviceClass,
  };
}

function standingBy(by: ComparedBy, first: Configuration, base: Configuration | undefined): StandingsAsk {
  const { purpose, group, suite, per, without, take } = by;
  return {
    deviceClass: [...new Set([first.deviceClass, ...(base ? [base.deviceClass] : [])])],
    ...(purpose !== undefined && { purpose }),
    ...(group !== undefined && { group }),
    ...(suite !== undefined && { suite }),
    ...(per !== undefined && { per }),
    ...(without !== undefined && { without }),
    ...(take !== undefined && { take }),
    ...(base && { base: base.id }),
  };
}

/** About who stands where. @param asked what the standing on the screen was asked. @param ranked who is in it. @param charts where it is shown as a chart for each test */
export function aboutStanding(
  deviceClass: Configuration['deviceClass'] | undefined,
  highlight: Configuration | undefined,
  asked?: StandingsAsk,
  ranked: readonly Configuration[] = [],
  charts?: { highlight: number | undefined },
): Beginning {
  // Charts show values as they were measured.
  const { per: _, ...asMeasured } = asked ?? {};
  return {
    begins: 'STANDING',
    title: deviceClass ? `The ${deviceClass.toLowerCase()}s we tested` : 'What we tested',
    models: highlight ? [highlight.modelId] : [],
    shown: highlight ? [highlight] : [],
    beside: ranked,
    deviceClass,
    asked,
    ...(charts && {
      figure: {
        of: 'charts' as const,
        asked: asMeasured,
        ...(charts.highlight !== undefined && { highlight: charts.highlight }),
      },
    }),
  };
}

/** About one device among others, by its report card. @param asked who the others are. @param base that it is held against */
export function aboutCard(of: Configuration, asked: StandingsAsk, base: number | undefined): Beginning {
  return {
    begins: 'MODEL',
    title: named(of),
    models: [of.modelId],
    shown: [of],
    deviceClass: of.deviceClass,
    asked,
    figure: { of: 'card', configuration: of.id, asked, ...(base !== undefined && { base }) },
  };
}

const MOST_CONFIGURATIONS = 20;

/** About one device over its versions, settings or days. @param by what the view asks besides */
export function aboutTrend(trends: Schemas['Trends'], by?: TrendBy): Beginning {
  return {
    begins: 'TREND',
    title: `${trends.maker} ${trends.model} along ${trends.along.label.toLowerCase()}`,
    models: [trends.modelId],
    shown: [],
    trend: {
      model: trends.modelId,
      unit: trends.unitId,
      along: trends.along.key,
      by,
      configurations: [...new Set(trends.steps.flatMap((s) => s.configurations.map((c) => c.id)))].slice(
        0,
        MOST_CONFIGURATIONS,
      ),
    },
  };
}

function everybody(of: Beginning): number[] {
  return (
    of.trend?.configurations ??
    [...new Set([...of.shown, ...(of.base ? [of.base] : []), ...(of.beside ?? [])].map((c) => c.id))].slice(
      0,
      MOST_CONFIGURATIONS,
    )
  );
}

function ranked(of: Beginning) {
  return of.asked ? { asked: of.asked } : { deviceClass: of.deviceClass };
}

/** A figure of a kind, asked of those that are on the screen; nothing where it cannot be asked of them. */
function questionOf(figure: string, of: Beginning, metric: number | undefined): FigureQuestion | undefined {
  const first = of.shown[0];
  const configurations = everybody(of);
  switch (figure) {
    case 'ratios':
      return first && of.base
        ? { of: 'ratios', configuration: first.id, base: of.base.id, ...(of.by && { by: of.by }) }
        : undefined;
    case 'standing':
      return { of: 'standing', ...ranked(of), highlight: first?.id };
    case 'value':
      return { of: 'value', quantity: 'price', ...ranked(of), highlight: first?.id };
    case 'trend':
      return of.trend
        ? {
            of: 'trend',
            model: of.trend.model,
            unit: of.trend.unit,
            along: of.trend.along,
            ...(of.trend.by && Object.keys(of.trend.by).length > 0 && { by: of.trend.by }),
          }
        : first && { of: 'trend', model: first.modelId };
    case 'factors':
      return configurations.length > 1 ? { of: 'factors', configurations } : undefined;
    case 'bars':
    case 'curves':
    case 'frames':
      return metric !== undefined && configurations.length > 0
        ? { of: figure, metric, configurations, highlight: first?.id }
        : undefined;
    default:
      return undefined;
  }
}

/**
 * The pieces of a kind, filled with what is on the screen.
 *
 * @param metrics the first that each of these was measured with, for bars, curves and frame times
 */
export function piecesOf(
  kind: Pick<Kind, 'pieces'>,
  of: Beginning,
  metrics: Readonly<Record<string, number | undefined>> = {},
): NewPiece[] {
  const configurations = everybody(of);
  const first: NewPiece[] = of.figure ? [{ kind: 'FIGURE', body: { question: of.figure } }] : [];
  const filled = kind.pieces.flatMap((p): NewPiece[] => {
    switch (p.kind) {
      case 'HEADING':
      case 'TEXT':
        return [{ kind: p.kind, body: { text: p.text ?? '' } }];
      case 'FIGURE':
      case 'TABLE': {
        const question = questionOf(p.figure ?? 'standing', of, metrics[p.figure ?? '']);
        return question ? [{ kind: p.kind, body: { question } }] : [];
      }
      case 'FACTS':
        return configurations.length > 0
          ? [{ kind: 'FACTS', body: { configurations: configurations.slice(0, 4) } }]
          : [];
      case 'METHOD':
        return configurations.length > 0
          ? [{ kind: 'METHOD', body: { configurations: configurations.slice(0, MOST_CONFIGURATIONS) } }]
          : [];
      case 'POINTS':
        return [{ kind: 'POINTS', body: { strong: [], weak: [] } }];
      case 'VERDICT':
        return [{ kind: 'VERDICT', body: { line: '' } }];
      default:
        // A photo is taken, not foreseen.
        return [];
    }
  });
  return [...first, ...filled];
}

/** Kinds whose figures need a test are asked what these were measured with. */
async function metricsOf(kind: Pick<Kind, 'pieces'>, of: Beginning) {
  const wanted = kind.pieces.some((p) => ['bars', 'curves', 'frames'].includes(p.figure ?? ''));
  const ids = everybody(of);
  if (!wanted || ids.length === 0) return {};
  const { metrics } = await value(api.GET('/api/compare/values', { params: { query: { ids } } }));
  return {
    bars: of.asked?.metric ?? metrics.find((m) => m.main && m.kind === 'NUMBER')?.id,
    curves: metrics.find((m) => m.kind === 'CURVE')?.id,
    frames: metrics.find((m) => m.kind === 'FRAME_TIMES')?.id,
  };
}

/** Those that are begun from something like this come first. */
export function kindsFor(kinds: readonly Kind[], begins: Begins): Kind[] {
  return [...kinds].sort((a, b) => Number(b.begins === begins) - Number(a.begins === begins));
}

/** Begins a write-up. @param kind without one, it has a text to begin with. @returns its number */
export async function begin(beginning: Beginning, kind: Kind | undefined): Promise<number> {
  const of = kind ?? { pieces: [{ kind: 'TEXT' as const }] };
  const pieces = piecesOf(of, beginning, await metricsOf(of, beginning));
  const made = await value(
    api.POST('/api/write-ups', {
      body: {
        title: beginning.title.slice(0, 200),
        models: [...new Set(beginning.models)].slice(0, 20),
        pieces: pieces.map((p) => ({ kind: p.kind, body: p.body })),
        ...(kind && { kind: kind.name }),
      },
    }),
  );
  return made.writeUp.id;
}
