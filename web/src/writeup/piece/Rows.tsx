import type { Drawn } from '../figure/drawn.ts';
import type { Picked } from './NumberPicker.tsx';
import { usePointing } from './pointing.ts';
import type { Bodies, NumberQuestion, Piece } from '../question/questions.ts';

/** The same, folded away below a figure. */
export function DataTable({ columns, rows }: { columns: readonly string[]; rows: readonly (readonly string[])[] }) {
  return (
    <details className="mt-1">
      <summary className="link cursor-pointer">the numbers behind it</summary>
      <Rows columns={columns} rows={rows} />
    </details>
  );
}

/** A table of words as it will stand in the page. */
export function Rows({
  columns,
  rows,
  asks,
}: {
  columns: readonly string[];
  rows: readonly (readonly string[])[];
  /** What the cells stand for, while a number is picked. */
  asks?: Drawn['asks'];
}) {
  const { pick } = usePointing();
  return (
    <div className="wide">
      <table className="data w-full">
        {columns.some((c) => c !== '') && (
          <thead>
            <tr>
              {columns.map((c, i) => (
                <th key={i} scope="col">
                  {c || <span className="sr-only">What</span>}
                </th>
              ))}
            </tr>
          </thead>
        )}
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, k) => (
                <td key={k}>
                  <Cell words={cell} ask={asks?.[i]?.[k]} pick={pick} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Cell({
  words,
  ask,
  pick,
}: {
  words: string;
  ask: NumberQuestion | undefined;
  pick: ((picked: Picked) => void) | undefined;
}) {
  if (!ask || !pick) return words;
  return (
    <button className="border-b-2 border-gold font-semibold" onClick={() => pick({ question: ask, words })}>
      {words}
    </button>
  );
}

/** A caption of one's own; without one, the proposed one stands there. */
export function Caption<K extends 'TABLE' | 'FACTS' | 'PHOTO'>({
  piece,
  onChange,
  proposed,
}: {
  onChange: (body: Bodies[K]) => void;
  piece: Piece<K>;
  proposed: string;
}) {
  return (
    <input
      aria-label="Caption"
      className="small w-full bg-transparent"
      placeholder={proposed}
      maxLength={1000}
      value={piece.body.caption ?? ''}
      onChange={(e) => onChange({ ...piece.body, caption: e.target.value })}
    />
  );
}
