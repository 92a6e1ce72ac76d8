import { useQueries } from '@tanstack/react-query';
import { compared, standingOf } from './figure/answers.ts';
import { boldClaims, replaced, type BoldClaim, type Evidence } from './question/bold-claims.ts';
import { nextNumber } from './question/number-words.ts';
import { askedBy, type Bodies, type Numbers, type Piece, type PieceKind } from './question/questions.ts';
import type { Writing } from './text/writing.ts';

/** A text of a piece with the way to put another in its place. */
interface Said {
  text: string;
  numbers: Numbers;
  /** The piece's body with another text, and its numbers. */
  with: (text: string, numbers: Numbers) => Bodies[PieceKind];
}

function textsOf(piece: Piece): Said[] {
  switch (piece.kind) {
    case 'TEXT':
      return [said(piece.body.text, piece.body.numbers, (text, numbers) => ({ ...piece.body, text, numbers }))];
    case 'VERDICT':
      return [said(piece.body.line, piece.body.numbers, (line, numbers) => ({ ...piece.body, line, numbers }))];
    case 'POINTS':
      return (['strong', 'weak'] as const).flatMap((side) =>
        piece.body[side].map((line, i) =>
          said(line, piece.body.numbers, (text, numbers) => ({
            ...piece.body,
            [side]: piece.body[side].map((l, n) => (n === i ? text : l)),
            numbers,
          })),
        ),
      );
    default:
      return [];
  }
}

const said = (text: string, numbers: Numbers | undefined, put: Said['with']): Said => ({
  text,
  numbers: numbers ?? {},
  with: put,
});

/** Every comparison and standing that the figures and numbers of a write-up ask. */
function useEvidence(pieces: readonly Piece[]): Evidence {
  const asked = askedBy(pieces);
  const ofNumbers = pieces
    .flatMap((p) => textsOf(p).flatMap((t) => Object.values(t.numbers)))
    .filter((n) => n.of === 'ratio' || n.of === 'overall');
  const pairs = [
    ...new Map(
      [...asked.filter((q) => q.of === 'ratios'), ...ofNumbers].map((q) => [
        JSON.stringify([q.configuration, q.base, q.by ?? {}]),
        { configuration: q.configuration, base: q.base, by: q.by },
      ]),
    ).values(),
  ];
  const standings = asked.filter((q) => q.of === 'standing');
  const comparisons = useQueries({ queries: pairs.map((p) => compared(p.configuration, p.base, p.by)) });
  const ranked = useQueries({ queries: standings.map((q) => standingOf(q)) });
  return {
    comparisons: comparisons.flatMap((c, i) => (c.data ? [{ comparison: c.data, by: pairs[i]!.by }] : [])),
    standings: ranked.flatMap((s) => (s.data ? [s.data] : [])),
  };
}

/** What is said beside a named device and not carried by the numbers, before it goes out. */
export function BoldClaims({ writing }: { writing: Writing }) {
  const evidence = useEvidence(writing.pieces);
  const found = writing.pieces.flatMap((piece) =>
    textsOf(piece).flatMap((text) => boldClaims(text.text, evidence).map((claim) => ({ piece, text, claim }))),
  );
  if (found.length === 0) return null;
  const use = (piece: Piece, text: Said, claim: BoldClaim) => {
    const id = nextNumber(text.numbers);
    writing.type(piece, text.with(replaced(text.text, claim, id), { ...text.numbers, [id]: claim.instead!.number }));
  };
  return (
    <section aria-label="Said more boldly than measured" className="mt-3 border-l-2 border-gold pl-3">
      <h3>Said more boldly than measured</h3>
      <ul>
        {found.map(({ piece, text, claim }, i) => (
          <li key={i} className="py-1">
            “{claim.said}”: <span className="text-ink-2">{claim.why}.</span>{' '}
            {claim.instead && (
              <button className="link" onClick={() => use(piece, text, claim)}>
                use the measured value
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
