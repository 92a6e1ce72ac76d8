import type { ReactNode } from 'react';
import { FactsPart, MethodPart } from './FactPieces.tsx';
import { FigurePart, TablePart } from './FigurePiece.tsx';
import { PhotoPart } from './PhotoPiece.tsx';
import { NOTHING, type Parts } from './piece-parts.ts';
import { PointsPart } from './PointsPiece.tsx';
import type { Bodies, Piece, PieceKind } from '../question/questions.ts';
import { TextPart, VerdictPart } from './TextPieces.tsx';

/** A piece by its kind. */
export function PieceParts({
  piece,
  onChange,
  children,
}: {
  piece: Piece;
  onChange: (body: Bodies[PieceKind]) => void;
  children: (parts: Parts) => ReactNode;
}) {
  switch (piece.kind) {
    case 'HEADING':
      return children({
        body: (
          <input
            aria-label="Heading"
            className="w-full bg-transparent font-title text-[22px] font-medium outline-offset-4"
            placeholder="A heading"
            maxLength={200}
            value={piece.body.text}
            onChange={(e) => onChange({ text: e.target.value })}
          />
        ),
        margin: null,
        report: NOTHING,
      });
    case 'TEXT':
      return <TextPart piece={piece} onChange={onChange} children={children} />;
    case 'VERDICT':
      return <VerdictPart piece={piece} onChange={onChange} children={children} />;
    case 'POINTS':
      return <PointsPart piece={piece} onChange={onChange} children={children} />;
    case 'FIGURE':
      return <FigurePart piece={piece} onChange={onChange} children={children} />;
    case 'TABLE':
      return <TablePart piece={piece} onChange={onChange} children={children} />;
    case 'FACTS':
      return <FactsPart piece={piece} onChange={onChange} children={children} />;
    case 'PHOTO':
      return <PhotoPart piece={piece} onChange={onChange} children={children} />;
    case 'METHOD':
      return <MethodPart piece={piece} onChange={onChange} children={children} />;
  }
}
