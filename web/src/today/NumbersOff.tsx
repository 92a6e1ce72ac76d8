import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { day } from '../format/format.ts';
import { reportOf } from '../writeup/figure/shown.ts';
import { useNumbers } from '../writeup/figure/use-answers.ts';
import type { Numbers, Piece } from '../writeup/question/questions.ts';

/** Texts of a piece with the numbers that stand in them. */
function textsOf(piece: Piece): { texts: string[]; numbers: Numbers } {
  switch (piece.kind) {
    case 'TEXT':
      return { texts: [piece.body.text], numbers: piece.body.numbers ?? {} };
    case 'VERDICT':
      return { texts: [piece.body.line], numbers: piece.body.numbers ?? {} };
    case 'POINTS':
      return { texts: [...piece.body.strong, ...piece.body.weak], numbers: piece.body.numbers ?? {} };
    default:
      return { texts: [], numbers: {} };
  }
}

/** One write-up with how its numbers stand to what is measured now. @param onlyOff whether it is named only if one no longer agrees */
export function NumbersOff({ of, onlyOff }: { of: Schemas['WriteUpRow']; onlyOff: boolean }) {
  const page = useQuery({
    queryKey: ['write-up', of.id, 'agrees'],
    queryFn: () => value(api.GET('/api/write-ups/{id}', { params: { path: { id: of.id } } })),
  });
  const pieces = ((page.data?.pieces ?? []) as Piece[]).map(textsOf);
  // Pieces name their numbers by themselves, so the same name means another number in the next.
  const numbers = useNumbers(
    Object.fromEntries(
      pieces.flatMap((p, i) => Object.entries(p.numbers).map(([id, question]) => [`${i} ${id}`, question])),
    ),
  );
  const reports = pieces.map((p, i) =>
    reportOf(
      p.texts,
      Object.fromEntries(Object.keys(p.numbers).map((id) => [id, numbers[`${i} ${id}`] ?? { state: 'waiting' }])),
    ),
  );
  const all = reports.reduce((sum, r) => sum + r.numbers, 0);
  const off = reports.reduce((sum, r) => sum + r.off, 0);
  const waiting = page.isPending || reports.some((r) => r.stops !== undefined);
  if (onlyOff && off === 0) return null;
  return (
    <li className="border-b border-hair-2 py-1.5">
      <Link
        to="/write-ups/$writeUpId"
        params={{ writeUpId: String(of.id) }}
        className="block font-semibold hover:underline"
      >
        {of.title}
      </Link>
      <span className="small">
        {off > 0 ? (
          <b className="font-semibold text-plum">
            {off} of {all} {all === 1 ? 'number' : 'numbers'} {off === 1 ? 'no longer agrees' : 'no longer agree'} with
            what is measured
          </b>
        ) : waiting ? (
          'looking up its numbers'
        ) : all === 0 ? (
          'no numbers in its text'
        ) : all === 1 ? (
          'its number agrees'
        ) : (
          `all ${all} numbers agree`
        )}
        {` · ${of.publishedAt === undefined ? 'not published' : `published ${day(of.publishedAt)}`}`}
      </span>
    </li>
  );
}
