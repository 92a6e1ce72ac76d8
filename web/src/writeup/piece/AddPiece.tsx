import { useState } from 'react';
import { Panel } from '../../ui/Panel.tsx';
import { PhotoButton } from './PhotoPiece.tsx';
import { KIND_WORDS, type Bodies, type PieceKind } from '../question/questions.ts';
import type { Writing } from '../text/writing.ts';

const KINDS: readonly PieceKind[] = [
  'TEXT',
  'HEADING',
  'FIGURE',
  'TABLE',
  'FACTS',
  'PHOTO',
  'POINTS',
  'VERDICT',
  'METHOD',
];

/** What a new piece begins with: the devices that the write-up speaks of already, or those on the table. */
export function fresh(kind: PieceKind, about: readonly number[]): Bodies[PieceKind] | undefined {
  const [a, b] = about;
  switch (kind) {
    case 'TEXT':
    case 'HEADING':
      return { text: '' };
    case 'FIGURE':
    case 'TABLE':
      if (a === undefined) return { question: { of: 'standing' } };
      return {
        question: b === undefined ? { of: 'standing', highlight: a } : { of: 'ratios', configuration: a, base: b },
      };
    case 'FACTS':
      return { configurations: about.slice(0, 4) };
    case 'POINTS':
      return { strong: [], weak: [] };
    case 'VERDICT':
      return { line: '' };
    case 'METHOD':
      return { configurations: about.slice(0, 20) };
    case 'PHOTO':
      return undefined;
  }
}

/** The line below the last piece that adds another. */
export function AddPiece({ writing, about }: { writing: Writing; about: readonly number[] }) {
  const [photo, setPhoto] = useState(false);
  const last = writing.pieces.at(-1)?.id;
  return (
    <div className="small flex flex-wrap items-baseline gap-x-3 gap-y-1 py-3 pl-[46px] text-[14px]">
      <span>Add:</span>
      {KINDS.map((kind) => (
        <button
          key={kind}
          className="link"
          onClick={() => {
            const body = fresh(kind, about);
            if (body) void writing.add(kind, body, last);
            else setPhoto(true);
          }}
        >
          {KIND_WORDS[kind]}
        </button>
      ))}
      <span>
        <kbd>@</kbd> in a text adds a number.
      </span>
      {photo && (
        <Panel open onClose={() => setPhoto(false)} title="A photo">
          <p className="mt-2 mb-3 text-ink-2">
            PNG, JPEG, GIF or WebP, 16 MB at the most. What is noted in it, such as where it was taken, is not kept.
          </p>
          <PhotoButton
            onKept={(hash) => {
              setPhoto(false);
              void writing.add('PHOTO', { hash }, last);
            }}
          />
        </Panel>
      )}
    </div>
  );
}
