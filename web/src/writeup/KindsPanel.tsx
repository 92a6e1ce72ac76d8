import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { Choice } from '../ui/Choice.tsx';
import { Panel } from '../ui/Panel.tsx';
import { Ready } from '../ui/states.tsx';
import { BEGINS_WORDS, kindsQuery, type Begins, type Kind } from './question/begin.ts';
import { FIGURE_FORMS } from './figure/kinds.ts';
import { KIND_WORDS, type PieceKind } from './question/questions.ts';

type KindPiece = Kind['pieces'][number];
const MOST = 40;
const BEGINS = (Object.keys(BEGINS_WORDS) as Begins[]).map((value) => ({ value, label: BEGINS_WORDS[value] }));
const KINDS = (Object.keys(KIND_WORDS) as PieceKind[])
  .filter((k) => k !== 'PHOTO')
  .map((value) => ({ value, label: KIND_WORDS[value] }));

/** What write-ups begin with, kind by kind; the lab changes it as it likes. */
export function KindsPanel({ onClose }: { onClose: () => void }) {
  const kinds = useQuery(kindsQuery);
  const queries = useQueryClient();
  const [open, setOpen] = useState<number | 'new'>();
  const [removed, setRemoved] = useState<Kind>();
  const changed = () => void queries.invalidateQueries({ queryKey: ['write-up-kinds'] });
  const remove = useMutation({
    mutationFn: (kind: Kind) => value(api.DELETE('/api/write-up-kinds/{id}', { params: { path: { id: kind.id } } })),
    onSuccess: (_, kind) => {
      setRemoved(kind);
      setOpen(undefined);
      changed();
    },
  });
  const restore = useMutation({
    mutationFn: (id: number) => value(api.POST('/api/write-up-kinds/{id}/restore', { params: { path: { id } } })),
    onSuccess: () => {
      setRemoved(undefined);
      changed();
    },
  });
  const done = () => {
    setOpen(undefined);
    changed();
  };
  return (
    <Panel open onClose={onClose} title="Templates">
      <p className="mt-2 text-ink-2">
        A new write-up begins with the pieces of its kind, filled with whatever is on the screen. What was begun before
        stays as it is.
      </p>
      {removed && (
        <p role="status" className="mt-2">
          “{removed.name}” is deleted.{' '}
          <button className="link" onClick={() => restore.mutate(removed.id)}>
            Undo
          </button>
        </p>
      )}
      {(remove.error ?? restore.error) && (
        <p role="alert" className="mt-2 text-plum">
          {(remove.error ?? restore.error)!.message}
        </p>
      )}
      <Ready query={kinds} what="the kinds">
        {(all) => (
          <ul className="mt-3" aria-label="Templates">
            {all.map((kind) => (
              <li key={kind.id} className="border-b border-hair-2 py-2">
                {open === kind.id ? (
                  <KindForm kind={kind} onDone={done} onCancel={() => setOpen(undefined)} />
                ) : (
                  <div className="flex items-baseline gap-3">
                    <div className="min-w-0 flex-1">
                      <b className="font-semibold">{kind.name}</b>{' '}
                      <span className="small">for {BEGINS_WORDS[kind.begins]}</span>
                      <p className="small">{kind.pieces.map((p) => pieceWords(p)).join(', ')}</p>
                    </div>
                    <button className="small link" aria-label={`Change ${kind.name}`} onClick={() => setOpen(kind.id)}>
                      change
                    </button>
                    <button
                      className="small link"
                      aria-label={`Delete ${kind.name}`}
                      onClick={() => remove.mutate(kind)}
                    >
                      delete
                    </button>
                  </div>
                )}
              </li>
            ))}
          </ul>
        )}
      </Ready>
      {open === 'new' ? (
        <KindForm onDone={done} onCancel={() => setOpen(undefined)} />
      ) : (
        <button className="button mt-3" onClick={() => setOpen('new')}>
          Make a kind
        </button>
      )}
    </Panel>
  );
}

function pieceWords(piece: KindPiece): string {
  if (piece.kind === 'HEADING' && piece.text) return `“${piece.text}”`;
  const figure = FIGURE_FORMS.find((f) => f.value === piece.figure)?.label;
  return figure ? `${KIND_WORDS[piece.kind]}: ${figure}` : KIND_WORDS[piece.kind];
}

function KindForm({ kind, onDone, onCancel }: { kind?: Kind; onDone: () => void; onCancel: () => void }) {
  const [name, setName] = useState(kind?.name ?? '');
  const [begins, setBegins] = useState<Begins>(kind?.begins ?? 'MODEL');
  // Two pieces may be the same: each line has a number of its own.
  const [pieces, setPieces] = useState(() =>
    (kind?.pieces ?? [{ kind: 'TEXT' as const }]).map((piece, at) => ({ at, piece })),
  );
  const keep = useMutation({
    mutationFn: () => {
      const body: Schemas['KindBody'] = {
        name,
        begins,
        pieces: pieces.map((p) => p.piece),
        revision: kind?.revision ?? 0,
      };
      return kind
        ? value(api.PUT('/api/write-up-kinds/{id}', { params: { path: { id: kind.id } }, body }))
        : value(api.POST('/api/write-up-kinds', { body }));
    },
    onSuccess: onDone,
  });
  const set = (at: number, piece: KindPiece) => setPieces(pieces.map((p) => (p.at === at ? { at, piece } : p)));
  const move = (i: number, by: -1 | 1) => {
    const to = [...pieces];
    const [one] = to.splice(i, 1);
    to.splice(i + by, 0, one!);
    setPieces(to);
  };
  return (
    <form
      className="py-2"
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate();
      }}
    >
      <label className="block">
        <span className="small">Name</span>
        <input
          className="field"
          maxLength={80}
          required
          autoFocus
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <p className="mt-2">
        Offered first for{' '}
        <Choice name="What it is begun from" value={begins} options={BEGINS} onChoose={setBegins}>
          {BEGINS_WORDS[begins]}
        </Choice>
        . It begins with
      </p>
      <ol className="mt-1" aria-label="Pieces">
        {pieces.map(({ at, piece }, i) => (
          <li key={at} className="flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-1">
            <Choice
              name={`Piece ${i + 1}`}
              value={piece.kind}
              options={KINDS}
              onChoose={(next) =>
                set(at, next === 'FIGURE' || next === 'TABLE' ? { kind: next, figure: 'standing' } : { kind: next })
              }
            >
              {KIND_WORDS[piece.kind]}
            </Choice>
            {(piece.kind === 'FIGURE' || piece.kind === 'TABLE') && (
              <Choice
                name={`What piece ${i + 1} shows`}
                value={piece.figure ?? 'standing'}
                options={FIGURE_FORMS}
                onChoose={(figure) => set(at, { ...piece, figure })}
              >
                {FIGURE_FORMS.find((f) => f.value === piece.figure)?.label ?? 'a standing'}
              </Choice>
            )}
            {(piece.kind === 'HEADING' || piece.kind === 'TEXT') && (
              <input
                className="field min-w-0 flex-1"
                aria-label={`Words of piece ${i + 1}`}
                placeholder={piece.kind === 'HEADING' ? 'What it is called' : 'What it begins with, if anything'}
                maxLength={piece.kind === 'HEADING' ? 200 : 4000}
                value={piece.text ?? ''}
                onChange={(e) => set(at, { ...piece, text: e.target.value })}
              />
            )}
            <span className="small ml-auto flex gap-2">
              <button
                type="button"
                className="link"
                disabled={i === 0}
                aria-label={`Piece ${i + 1} up`}
                onClick={() => move(i, -1)}
              >
                up
              </button>
              <button
                type="button"
                className="link"
                disabled={i === pieces.length - 1}
                aria-label={`Piece ${i + 1} down`}
                onClick={() => move(i, 1)}
              >
                down
              </button>
              <button
                type="button"
                className="link"
                disabled={pieces.length === 1}
                aria-label={`Piece ${i + 1} out`}
                onClick={() => setPieces(pieces.filter((p) => p.at !== at))}
              >
                out
              </button>
            </span>
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="small link mt-1"
        disabled={pieces.length >= MOST}
        onClick={() =>
          setPieces([...pieces, { at: Math.max(...pieces.map((p) => p.at)) + 1, piece: { kind: 'TEXT' } }])
        }
      >
        another piece
      </button>
      {keep.error && (
        <p role="alert" className="mt-2 text-plum">
          {keep.error.message}
        </p>
      )}
      <p className="mt-3 flex gap-3">
        <button className="button button-main" disabled={keep.isPending || name.trim() === ''}>
          Save
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Leave it
        </button>
      </p>
    </form>
  );
}
