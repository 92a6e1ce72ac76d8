import { table } from '../../export/csv.ts';
import { ExportMenu } from '../../export/ExportMenu.tsx';
import { Drawing } from '../figure/Drawing.tsx';
import { FigureForm } from './FigureForm.tsx';
import { figurePage } from '../figure/figure-page.ts';
import type { Drawn } from '../figure/drawn.ts';
import type { FigureQuestion } from '../question/questions.ts';
import type { Props } from './piece-parts.ts';
import { Caption, DataTable, Rows } from './Rows.tsx';
import { usePointing } from './pointing.ts';
import { useFigure } from '../figure/use-answers.ts';

export function FigurePart({ piece, onChange, children }: Props<'FIGURE'>) {
  const { question, caption, alt } = piece.body;
  const now = useFigure(question);
  const { pick } = usePointing();
  const drawn = now.state === 'drawn' ? now.drawn : undefined;
  return children({
    body: (
      <figure>
        {drawn ? (
          <Drawing svg={drawn.svg} narrow={drawn.narrow} alt={alt || drawn.alt} />
        ) : (
          <p className={`py-6 ${now.state === 'nothing' ? 'text-plum' : 'text-ink-2'}`}>
            {now.state === 'nothing' ? now.why : 'Drawing it.'}
          </p>
        )}
        {pick && drawn?.asks && <Rows columns={drawn.columns} rows={drawn.rows} asks={drawn.asks} />}
        <figcaption>
          <textarea
            aria-label="Caption"
            rows={2}
            className="small w-full resize-none bg-transparent"
            placeholder={drawn?.caption ?? 'A caption'}
            maxLength={1000}
            value={caption ?? ''}
            onChange={(e) => onChange({ ...piece.body, caption: e.target.value })}
          />
        </figcaption>
      </figure>
    ),
    margin: (
      <>
        <p>
          <FigureForm question={question} onChange={(q) => onChange({ ...piece.body, question: q })} />
        </p>
        <label className="mt-2 block">
          <b className="font-semibold text-ink">Alternative text</b>
          <textarea
            rows={3}
            className="w-full resize-y bg-transparent"
            placeholder={drawn?.alt}
            maxLength={2000}
            value={alt ?? ''}
            onChange={(e) => onChange({ ...piece.body, alt: e.target.value })}
          />
        </label>
        {drawn && (
          <>
            <DataTable columns={drawn.columns} rows={drawn.rows} />
            <ExportMenu
              quiet
              name={caption || drawn.caption}
              draw={(paint, font) => figurePage(drawn, caption || drawn.caption, paint, font)}
              csv={() => table([drawn.columns, ...drawn.rows])}
            />
          </>
        )}
      </>
    ),
    report: {
      numbers: 0,
      off: 0,
      shown: drawn && {
        svg: drawn.svg,
        ...(drawn.narrow !== undefined && { narrow: drawn.narrow }),
        caption: drawn.caption.slice(0, 1000),
        alt: (alt || drawn.alt).slice(0, 2000),
        columns: drawn.columns,
        rows: drawn.rows,
        metrics: shownMetrics(question, drawn),
      },
      stops:
        now.state === 'nothing'
          ? `A figure shows nothing: ${now.why}`
          : now.state === 'waiting'
            ? 'A figure is still drawn.'
            : undefined,
    },
  });
}

/** The values that stand in it: readers are told what their tests do. */
function shownMetrics(question: FigureQuestion, drawn: Drawn): number[] {
  const asked = drawn.asks?.flat().flatMap((q) => (q && 'metric' in q ? [q.metric] : [])) ?? [];
  const own = 'metric' in question && question.metric !== undefined ? [question.metric] : [];
  return [...new Set([...own, ...asked])].slice(0, 500);
}

/** A figure's question answered as a table. */
export function TablePart({ piece, onChange, children }: Props<'TABLE'>) {
  const now = useFigure(piece.body.question);
  const drawn = now.state === 'drawn' ? now.drawn : undefined;
  return children({
    body: drawn ? (
      <>
        <Caption piece={piece} onChange={onChange} proposed={drawn.caption} />
        <Rows columns={drawn.columns} rows={drawn.rows} asks={drawn.asks} />
      </>
    ) : (
      <p className={now.state === 'nothing' ? 'text-plum' : 'text-ink-2'}>
        {now.state === 'nothing' ? now.why : 'Looking it up.'}
      </p>
    ),
    margin: (
      <FigureForm question={piece.body.question} onChange={(question) => onChange({ ...piece.body, question })} />
    ),
    report: {
      numbers: 0,
      off: 0,
      shown: drawn && {
        columns: drawn.columns,
        rows: drawn.rows,
        caption: drawn.caption.slice(0, 1000),
        metrics: shownMetrics(piece.body.question, drawn),
      },
      stops:
        now.state === 'nothing'
          ? `A table shows nothing: ${now.why}`
          : now.state === 'waiting'
            ? 'A table is still looked up.'
            : undefined,
    },
  });
}
