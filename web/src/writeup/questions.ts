import type { Schemas } from '../api/client.ts';

/** What a number in a text stands for. */
export type NumberQuestion =
  | { of: 'value'; configuration: number; metric: number }
  | { of: 'ratio'; configuration: number; base: number; metric: number }
  | { of: 'overall'; configuration: number; base: number }
  | { of: 'fact'; configuration: number; key: string };

/** What a figure shows. */
export type FigureQuestion =
  | {
      of: 'bars';
      metric: number;
      /** Further ones beside it, on the same scale. */
      beside?: number[] | undefined;
      configurations: number[];
      highlight?: number | undefined;
      order?: 'best' | 'given';
    }
  | { of: 'curves' | 'frames'; metric: number; configurations: number[]; highlight?: number | undefined }
  | {
      of: 'factors';
      configurations: number[];
      first?: string | undefined;
      second?: string | undefined;
      metric?: number | undefined;
    }
  | { of: 'ratios'; configuration: number; base: number; metrics?: number[] | undefined }
  | {
      of: 'value';
      quantity: string;
      deviceClass?: Schemas['ConfigurationRow']['deviceClass'] | undefined;
      highlight?: number | undefined;
    }
  | { of: 'trend'; model: number; unit?: number | undefined; along?: string | undefined }
  | {
      of: 'standing';
      deviceClass?: Schemas['ConfigurationRow']['deviceClass'] | undefined;
      highlight?: number | undefined;
    };

export type PieceKind = Schemas['PieceRow']['kind'];
export type Numbers = Record<string, NumberQuestion>;

/** What is in a piece, by its kind; the server keeps it as it is. */
export interface Bodies {
  HEADING: { text: string };
  TEXT: { text: string; numbers?: Numbers };
  FIGURE: { question: FigureQuestion; caption?: string; alt?: string; notes?: string };
  TABLE: { question: FigureQuestion; caption?: string };
  FACTS: { configurations: number[]; keys?: string[]; caption?: string };
  PHOTO: { hash: string; caption?: string; alt?: string; notes?: string };
  POINTS: { strong: string[]; weak: string[]; dropped?: string[]; numbers?: Numbers; notes?: string };
  VERDICT: { line: string; mark?: string; numbers?: Numbers; notes?: string };
  METHOD: { configurations: number[]; note?: string };
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

/** Configurations that a figure asks for by name. */
export function configurationsOf(q: FigureQuestion): number[] {
  switch (q.of) {
    case 'bars':
    case 'curves':
    case 'frames':
    case 'factors':
      return q.configurations;
    case 'ratios':
      return [q.configuration, q.base];
    case 'standing':
    case 'value':
      return q.highlight === undefined ? [] : [q.highlight];
    case 'trend':
      return [];
  }
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
      return piece.body.configurations;
    case 'TEXT':
    case 'POINTS':
    case 'VERDICT':
      return ofNumbers(piece.body.numbers);
    default:
      return [];
  }
}

/** All of them, each once, in the order they come up. */
export function allConfigurations(pieces: readonly Piece[]): number[] {
  return [...new Set(pieces.flatMap(spokenOf))];
}
