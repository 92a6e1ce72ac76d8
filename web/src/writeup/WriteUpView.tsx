import { useMutation, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useAccess } from '../access/AccessGate.tsx';
import { api, value, type Schemas } from '../api/client.ts';
import { clockTime, moment } from '../format/format.ts';
import { Guard } from '../ui/Guard.tsx';
import { useTable } from '../shell/table-store.ts';
import { useTitle } from '../shell/title.ts';
import { Ready } from '../ui/states.tsx';
import { AddPiece } from './piece/AddPiece.tsx';
import { DraftPanel } from './DraftPanel.tsx';
import { ComparedAs, Offered } from './piece/NumberPicker.tsx';
import { PointingArea } from './piece/PointingBar.tsx';
import { PieceRow } from './piece/PieceRow.tsx';
import { PublishPanel } from './PublishPanel.tsx';
import { allConfigurations, KIND_WORDS, askedBy, comparedBy, type FigureQuestion } from './question/questions.ts';
import { drift, type Report } from './figure/shown.ts';
import { useWriting, type Writing } from './text/writing.ts';

const route = getRouteApi('/write-ups/$writeUpId');

/** A write-up where it is written: pieces as they will stand, and beside each where its numbers come from. */
export function WriteUpView() {
  const id = Number(route.useParams().writeUpId);
  const writing = useWriting(id);
  return (
    <Ready query={writing.page} what="the write-up">
      {(page) => <Editor page={page} writing={writing} />}
    </Ready>
  );
}

function Editor({ page, writing }: { page: Schemas['WriteUpPage']; writing: Writing }) {
  const access = useAccess();
  const reader = access.role === 'READER';
  const { entries } = useTable();
  const [reports, setReports] = useState<ReadonlyMap<number, Report>>(new Map());
  const [panel, setPanel] = useState<'publish' | 'draft'>();
  useTitle(page.writeUp.title);
  const onReport = useCallback(
    (piece: number, report: Report) => setReports((now) => new Map(now).set(piece, report)),
    [],
  );
  const all = writing.pieces.map((p) => reports.get(p.id));
  const totals = {
    numbers: all.reduce((n, r) => n + (r?.numbers ?? 0), 0),
    off: all.reduce((n, r) => n + (r?.off ?? 0), 0),
  };
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      const writes = event.target instanceof HTMLElement && event.target.matches('input, textarea');
      if (event.key === 'z' && (event.ctrlKey || event.metaKey) && !event.shiftKey && !writes && writing.last) {
        event.preventDefault();
        void writing.undo();
      }
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [writing]);
  // The same list as long as it holds the same, so that a letter typed wakes nobody who asks for it.
  const offeredKey = [...new Set([...allConfigurations(writing.pieces), ...entries.map((e) => e.id)])].join(',');
  const offered = useMemo(() => (offeredKey === '' ? [] : offeredKey.split(',').map(Number)), [offeredKey]);
  // The same as long as the figures ask the same.
  const askedKey = JSON.stringify(askedBy(writing.pieces));
  const as = useMemo(() => comparedBy(JSON.parse(askedKey) as FigureQuestion[]), [askedKey]);
  const published = page.editions[0];
  return (
    <Offered value={offered}>
      <ComparedAs value={as}>
        <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-2">
          <span className="small" role="status">
            <Link to="/write-ups" className="link">
              Write-ups
            </Link>{' '}
            · {published ? `edition ${published.number} published` : 'draft'},{' '}
            {savingWords(writing.saving, page.writeUp.changedAt)}
          </span>
          {writing.last && (
            <span className="small">
              {writing.last}.{' '}
              <button className="link" onClick={() => void writing.undo()}>
                Undo
              </button>
            </span>
          )}
          {writing.failed && (
            <span role="alert" className="small text-plum">
              {writing.failed}
            </span>
          )}
          <span className="small ml-auto">
            {totals.numbers} {totals.numbers === 1 ? 'number' : 'numbers'}
            {totals.off > 0 && (
              <b className="font-semibold text-plum">
                , {totals.off} {totals.off === 1 ? 'does not agree' : 'do not agree'}
              </b>
            )}
          </span>
          <Link to="/write-ups/$writeUpId/stage" params={{ writeUpId: String(page.writeUp.id) }} className="button">
            Stage
          </Link>
          {!reader && (
            <>
              <button className="button" onClick={() => setPanel('draft')}>
                Show a draft
              </button>
              <button className="button button-main" onClick={() => setPanel('publish')}>
                Publish
              </button>
            </>
          )}
        </div>
        {writing.backFrom && (
          <p role="status" className="mb-2 border-l-2 border-gold pl-3">
            What you typed here {moment(writing.backFrom)} and could not save is back.
          </p>
        )}
        {writing.left.map((one) => (
          <p key={one.key} role="status" className="mb-2 border-l-2 border-gold pl-3">
            Unsent text from {moment(one.since)}
            {!one.there && ', of a piece that is no longer there'}: “{wordsOf(one.body)}”{' '}
            <button className="link" onClick={() => void writing.settleLeft(one, 'insert')}>
              Insert
            </button>{' '}
            ·{' '}
            <button className="link" onClick={() => void writing.settleLeft(one, 'discard')}>
              Discard
            </button>
          </p>
        ))}
        <PointingArea>
          <fieldset disabled={reader} className="min-w-0">
            <Head page={page} writing={writing} reports={reports} />
            <ul aria-label="Pieces">
              {writing.pieces.map((piece, i) => (
                <Guard
                  key={piece.id}
                  of={[piece.revision, piece.body]}
                  what={`Piece ${i + 1}, ${KIND_WORDS[piece.kind]},`}
                  action={
                    <button
                      className="button"
                      onClick={() => void writing.acts.remove(piece.id, KIND_WORDS[piece.kind])}
                    >
                      Take it out
                    </button>
                  }
                >
                  <PieceRow
                    piece={piece}
                    at={i}
                    count={writing.pieces.length}
                    state={writing.stateOf(piece.id)}
                    problem={writing.problemOf(piece.id)}
                    theirs={writing.theirsOf(piece.id)}
                    acts={writing.acts}
                    onReport={onReport}
                  />
                </Guard>
              ))}
            </ul>
            {!reader && <AddPiece writing={writing} about={offered} />}
          </fieldset>
        </PointingArea>
        {panel === 'publish' && (
          <PublishPanel page={page} reports={reports} writing={writing} onClose={() => setPanel(undefined)} />
        )}
        {panel === 'draft' && (
          <DraftPanel page={page} reports={reports} writing={writing} onClose={() => setPanel(undefined)} />
        )}
      </ComparedAs>
    </Offered>
  );
}

/** What somebody typed into a piece, shortened; a figure has its question instead. */
function wordsOf(body: unknown): string {
  const text = (body as { text?: unknown }).text;
  const words = typeof text === 'string' ? text : JSON.stringify(body);
  return words.length > 160 ? `${words.slice(0, 160)}…` : words;
}

function savingWords(saving: Writing['saving'], changedAt: string): string {
  switch (saving) {
    case 'saved':
      return `saved ${clockTime(Date.parse(changedAt))}`;
    case 'conflict':
      return 'someone else changed a piece that you write';
    case 'failed':
      return 'not all of it is saved';
    default:
      return 'keeping it';
  }
}

/** To its writer: what the newest edition says that would be other now. */
function Drifted({ page, reports }: { page: Schemas['WriteUpPage']; reports: ReadonlyMap<number, Report> }) {
  const number = page.editions[0]?.number;
  const edition = useQuery({
    queryKey: ['edition', page.writeUp.id, number],
    queryFn: () =>
      value(
        api.GET('/api/write-ups/{id}/editions/{number}', {
          params: { path: { id: page.writeUp.id, number: number! } },
        }),
      ),
    enabled: number !== undefined,
    staleTime: Infinity,
  });
  const other = edition.data ? drift(edition.data.shown, reports) : [];
  if (number === undefined || other.length === 0) return null;
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-plum">
        Edition {number} stays as it is; published now, {other.length} {other.length === 1 ? 'thing' : 'things'} in it
        would be other
      </summary>
      <ul>
        {other.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </details>
  );
}

function Head({
  page,
  writing,
  reports,
}: {
  page: Schemas['WriteUpPage'];
  writing: Writing;
  reports: ReadonlyMap<number, Report>;
}) {
  const { writeUp } = page;
  const [title, setTitle] = useState(writeUp.title);
  const [subtitle, setSubtitle] = useState(writeUp.subtitle ?? '');
  const keep = useMutation({
    mutationFn: () =>
      value(
        api.PUT('/api/write-ups/{id}', {
          params: { path: { id: writeUp.id } },
          body: { title, subtitle, listed: writeUp.listed, models: writeUp.about.map((a) => a.modelId) },
        }),
      ),
    onSuccess: () => void writing.refresh(),
  });
  const leave = () => {
    if (title.trim() === '') setTitle(writeUp.title);
    else if (title !== writeUp.title || subtitle !== (writeUp.subtitle ?? '')) keep.mutate();
  };
  return (
    <div className="grid grid-cols-[26px_minmax(0,690px)_minmax(0,1fr)] gap-x-5 max-lg:grid-cols-[26px_minmax(0,1fr)]">
      <span />
      <div>
        <h1 className="sr-only">{writeUp.title}</h1>
        <textarea
          aria-label="Title"
          rows={title.length > 44 ? 2 : 1}
          className="[field-sizing:content] w-full resize-none bg-transparent font-title text-[32px] leading-tight font-medium"
          maxLength={200}
          value={title}
          onChange={(e) => setTitle(e.target.value.replaceAll('\n', ' '))}
          onBlur={leave}
        />
        <input
          aria-label="Subtitle"
          className="w-full bg-transparent text-[17px] text-ink-2"
          placeholder="What it asks, in a line"
          maxLength={400}
          value={subtitle}
          onChange={(e) => setSubtitle(e.target.value)}
          onBlur={leave}
        />
        {keep.error && (
          <p role="alert" className="text-plum">
            {keep.error.message}
          </p>
        )}
      </div>
      <div className="small border-l border-hair pl-4 max-lg:col-start-2">
        {writeUp.about.length > 0 && 'About '}
        {writeUp.about.map((a, i) => (
          <span key={a.modelId}>
            {i > 0 && ', '}
            <Link to="/shelf/models/$modelId" params={{ modelId: String(a.modelId) }} className="link">
              {a.name}
            </Link>
          </span>
        ))}
        <Drifted page={page} reports={reports} />
      </div>
    </div>
  );
}
