import type { Schemas } from '../../api/client.ts';
import type { ComparedBy } from './asked.ts';

/** What a number in a text stands for. */
export type NumberQuestion = Schemas['NumberQuestion'];

/** What a figure shows. */
export type FigureQuestion = Schemas['FigureQuestion'];

export type PieceKind = Schemas['PieceRow']['kind'];
export type Numbers = Record<string, NumberQuestion>;

/** What is in a piece, by its kind. */
export interface Bodies {
  HEADING: Schemas['Heading'];
  TEXT: Schemas['Text'];
  FIGURE: Schemas['Figure'];
  TABLE: Schemas['Table'];
  FACTS: Schemas['Facts'];
  PHOTO: Schemas['Photo'];
  POINTS: Schemas['Points'];
  VERDICT: Schemas['Verdict'];
  METHOD: Schemas['Method'];
}

/** A piece with what its kind has in it. */
export type Piece<K extends PieceKind = PieceKind> = {
  [P in K]: Omit<Schemas['PieceRow'], 'kind' | 'body'> & { kind: P; body: Bodies[P] };
}[K];

export const KIND_WORDS: Record<PieceKind, string> = {
  HEADING: 'heading',
  TEXT: 'text',
  FIGURE: 'figure',
  TABLE: 'table',
  FACTS: 'facts of devices',
  PHOTO: 'photo',
  POINTS: 'strong and weak',
  VERDICT: 'verdict',
  METHOD: 'method',
};

/** Configurations that a figure names, whatever kind it is; also one that came from elsewhere and is not known here. */
export function configurationsOf(q: FigureQuestion | undefined): number[] {
  const named: { of?: string; configurations?: number[]; configuration?: number; base?: number; highlight?: number } =
    q ?? {};
  return named.configurations ?? [named.configuration, named.base ?? named.highlight].filter((id) => id !== undefined);
}

/** Configurations that a piece speaks of. */
function spokenOf(piece: Piece): number[] {
  const ofNumbers = (numbers: Numbers | undefined) =>
    Object.values(numbers ?? {}).flatMap((q) => ('base' in q ? [q.configuration, q.base] : [q.configuration]));
  switch (piece.kind) {
    case 'FIGURE':
    case 'TABLE':
      return configurationsOf(piece.body.question);
    case 'FACTS':
    case 'METHOD':
      return piece.body.configurations ?? [];
    case 'TEXT':
    case 'POINTS':
    case 'VERDICT':
      return ofNumbers(piece.body.numbers);
    default:
      return [];
  }
}

/** What the figures and tables among these pieces ask. */
export function askedBy(pieces: readonly Piece[]): FigureQuestion[] {
  return pieces.flatMap((p) => (p.kind === 'FIGURE' || p.kind === 'TABLE' ? [p.body.question] : []));
}

/** How two are compared by these: numbers that are offered beside a figure answer the same question. */
export function comparedBy(
  asked: readonly FigureQuestion[],
): (configuration: number, base: number) => ComparedBy | undefined {
  const ratios = asked.filter((q) => q.of === 'ratios');
  return (configuration, base) => ratios.find((q) => q.configuration === configuration && q.base === base)?.by;
}

/** All of them, each once, in the order they come up. */
export function allConfigurations(pieces: readonly Piece[]): number[] {
  return [...new Set(pieces.flatMap(spokenOf))];
}
