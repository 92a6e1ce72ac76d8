import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { sendFile } from '../../api/client.ts';
import { NOTHING, type Props } from './piece-parts.ts';
import { Caption } from './Rows.tsx';

/** What the server takes. */
const MOST_PHOTO_BYTES = 16_000_000;

export function PhotoPart({ piece, onChange, children }: Props<'PHOTO'>) {
  return children({
    body: (
      <figure>
        <img src={`/api/files/${piece.body.hash}`} alt={piece.body.alt ?? ''} className="max-h-[480px] rounded-sm" />
        <figcaption>
          <Caption piece={piece} onChange={onChange} proposed="A caption" />
        </figcaption>
      </figure>
    ),
    margin: (
      <label>
        <b className="font-semibold text-ink">Alternative text</b>
        <textarea
          rows={2}
          className="w-full bg-transparent"
          placeholder="What is to be seen, for those who do not see it"
          maxLength={2000}
          value={piece.body.alt ?? ''}
          onChange={(e) => onChange({ ...piece.body, alt: e.target.value })}
        />
        {!piece.body.alt && <span className="text-plum">Nothing says what is to be seen.</span>}
      </label>
    ),
    report: NOTHING,
  });
}

/** Picks a photo and keeps it. */
export function PhotoButton({ onKept }: { onKept: (hash: string) => void }) {
  const [problem, setProblem] = useState<string>();
  const keep = useMutation({
    mutationFn: async (file: File) => {
      if (file.size > MOST_PHOTO_BYTES)
        throw new Error(`This photo has ${Math.round(file.size / 1e6)} MB; 16 are the most.`);
      return sendFile<{ hash: string }>('/api/write-ups/photos', file);
    },
    onSuccess: (kept) => onKept(kept.hash),
    onError: (e) => setProblem(e.message),
  });
  return (
    <>
      <label className="button cursor-pointer focus-within:outline-2">
        {keep.isPending ? 'Keeping it' : 'Choose a photo'}
        <input
          type="file"
          accept="image/png,image/jpeg,image/gif,image/webp"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            setProblem(undefined);
            if (file) keep.mutate(file);
            e.target.value = '';
          }}
        />
      </label>
      {problem && (
        <p role="alert" className="text-plum">
          {problem}
        </p>
      )}
    </>
  );
}
