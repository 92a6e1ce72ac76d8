import { memo, useEffect, useState, type DragEvent } from 'react';
import type { Schemas } from '../../api/client.ts';
import { moment } from '../../format/format.ts';
import { PieceParts } from './pieces.tsx';
import { KIND_WORDS, type Piece } from '../question/questions.ts';
import type { Report } from '../figure/shown.ts';
import type { Saving } from '../text/piece-texts.ts';
import type { Acts } from '../text/writing.ts';

const DRAGGED = 'application/x-yarrowmark-piece';

/** A piece in its place: what moves it at the left, what it says of itself at the right. */
export const PieceRow = memo(function PieceRow({
  piece,
  at,
  count,
  state,
  problem,
  theirs,
  acts,
  onReport,
}: {
  piece: Piece;
  at: number;
  count: number;
  state: Saving;
  problem: string | undefined;
  theirs: Schemas['PieceRow'] | undefined;
  acts: Acts;
  onReport: (piece: number, report: Report) => void;
}) {
  const [over, setOver] = useState(false);
  const words = KIND_WORDS[piece.kind];
  const name = `${words}, piece ${at + 1} of ${count}`;
  function drop(event: DragEvent) {
    setOver(false);
    const moved = Number(event.dataTransfer.getData(DRAGGED));
    if (!moved || moved === piece.id) return;
    event.preventDefault();
    void acts.move(moved, at);
  }
  return (
    <PieceParts piece={piece} onChange={(body) => acts.type(piece, body)}>
      {({ body, margin, report }) => {
        return (
          <li
            className={`group grid grid-cols-[26px_minmax(0,690px)_minmax(0,1fr)] gap-x-5 py-2.5 max-lg:grid-cols-[26px_minmax(0,1fr)] ${over ? 'border-t-2 border-gold' : 'border-t-2 border-transparent'}`}
            onDragOver={(e) => {
              if (e.dataTransfer.types.includes(DRAGGED)) {
                e.preventDefault();
                setOver(true);
              }
            }}
            onDragLeave={() => setOver(false)}
            onDrop={drop}
          >
            <button
              className="said h-7 cursor-grab self-start text-[15px] leading-none text-ink-3 hover:text-ink"
              draggable
              aria-label={`Move or take out: ${name}`}
              aria-keyshortcuts="ArrowUp ArrowDown Delete"
              title="Drag, or press the arrow keys; Delete takes it out"
              onDragStart={(e) => {
                e.dataTransfer.setData(DRAGGED, String(piece.id));
                e.dataTransfer.effectAllowed = 'move';
              }}
              onKeyDown={(e) => {
                if (e.key === 'ArrowUp') void acts.move(piece.id, at - 1);
                else if (e.key === 'ArrowDown') void acts.move(piece.id, at + 1);
                else if (e.key === 'Delete') void acts.remove(piece.id, words);
                else return;
                e.preventDefault();
              }}
            >
              ⠿
            </button>
            <div className="min-w-0">
              <Reported piece={piece.id} report={report} onReport={onReport} />
              {body}
              {theirs && (
                <div role="alert" className="mt-2 border-l-2 border-plum pl-3 text-[14px]">
                  <p>
                    {theirs.changedBy} changed this piece at {moment(theirs.changedAt)} while you wrote. Theirs:
                  </p>
                  <blockquote className="my-1 whitespace-pre-wrap text-ink-2">{plainly(theirs.body)}</blockquote>
                  <button className="button mr-2" onClick={() => acts.settle(piece.id, 'mine')}>
                    Keep mine
                  </button>
                  <button className="button" onClick={() => acts.settle(piece.id, 'theirs')}>
                    Take theirs
                  </button>
                </div>
              )}
              {state === 'failed' && (
                <p role="alert" className="small mt-1 text-plum">
                  Not saved yet: {problem}
                </p>
              )}
            </div>
            <div className="small min-w-0 border-l border-hair pl-4 leading-snug max-lg:col-start-2 max-lg:mt-1">
              {margin}
              {isStaged(piece) && (
                <details className="mt-1" open={Boolean(piece.body.notes)}>
                  <summary className="link cursor-pointer">notes for the stage</summary>
                  <textarea
                    aria-label={`Notes for the stage: ${name}`}
                    rows={2}
                    maxLength={4000}
                    className="w-full resize-y bg-transparent"
                    placeholder="What to say while it is shown; no reader sees it"
                    value={piece.body.notes ?? ''}
                    onChange={(e) => acts.type(piece, { ...piece.body, notes: e.target.value })}
                  />
                </details>
              )}
              <button
                className="link mt-1 block opacity-0 group-hover:opacity-100 focus:opacity-100 max-lg:opacity-100"
                aria-label={`Take out: ${name}`}
                onClick={() => void acts.remove(piece.id, words)}
              >
                take out
              </button>
            </div>
          </li>
        );
      }}
    </PieceParts>
  );
});

/** What is shown on the stage by itself, and may be spoken of there. */
function isStaged(piece: Piece): piece is Piece<'FIGURE' | 'PHOTO' | 'POINTS' | 'VERDICT'> {
  return 'question' in piece.body
    ? piece.kind === 'FIGURE'
    : piece.kind === 'PHOTO' || piece.kind === 'POINTS' || piece.kind === 'VERDICT';
}

/** Tells the page what a piece would be published with, once that is another. */
function Reported({
  piece,
  report,
  onReport,
}: {
  piece: number;
  report: Report;
  onReport: (piece: number, report: Report) => void;
}) {
  const text = JSON.stringify(report);
  useEffect(() => onReport(piece, JSON.parse(text) as Report), [piece, text, onReport]);
  return null;
}

function plainly(body: unknown): string {
  const { text, line, strong, weak, caption } = body as Record<string, unknown>;
  const parts = [text, line, strong, weak, caption]
    .flat()
    .filter((t): t is string => typeof t === 'string' && t !== '');
  return parts.length > 0 ? parts.join('\n') : 'another question or choice';
}
