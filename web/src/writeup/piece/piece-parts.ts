import type { ReactNode } from 'react';
import type { Bodies, Piece, PieceKind } from '../question/questions.ts';
import type { Report } from '../figure/shown.ts';

/** What a piece gives to the page around it: itself, and what stands beside it. */
export interface Parts {
  body: ReactNode;
  margin: ReactNode;
  report: Report;
}
/** Every kind of piece is given these, and gives its parts to what stands around it. */
export type Props<K extends PieceKind> = {
  piece: Piece<K>;
  onChange: (body: Bodies[K]) => void;
  children: (parts: Parts) => ReactNode;
};

/** Of a piece without numbers. */
export const NOTHING: Report = { numbers: 0, off: 0 };
