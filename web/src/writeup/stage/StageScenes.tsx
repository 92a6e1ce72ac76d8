import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Drawing } from '../figure/Drawing.tsx';
import type { FigureQuestion, Piece } from '../question/questions.ts';
import { type Order } from './stage-order.ts';
import { chartHeading, chartsOf } from '../figure/charts.ts';
import { chartsOfStanding } from '../figure/answers.ts';
import { useFigure } from '../figure/use-answers.ts';
import { ON_STAGE, NotYet, StandingScene, BarsScene, RatiosScene } from './RowScenes.tsx';

/** One piece by itself, as large as the screen. */
export function Scene({
  piece,
  step,
  order,
  onSteps,
}: {
  piece: Piece;
  step: number;
  order: Order;
  onSteps: (n: number) => void;
}) {
  switch (piece.kind) {
    case 'VERDICT':
      return (
        <div className="flex h-full flex-col justify-center">
          <p className="stage-title">{plain(piece.body.line)}</p>
          {piece.body.mark && <p className="stage-sub">{piece.body.mark}</p>}
        </div>
      );
    case 'POINTS':
      return (
        <div className="grid h-full grid-cols-2 content-center gap-x-[5cqw]">
          {(['strong', 'weak'] as const).map((side) => (
            <section key={side}>
              <h2 className="stage-title">{side === 'strong' ? 'Strong' : 'Weak'}</h2>
              <ul className="stage-list">
                {piece.body[side].map((line, i) => (
                  <li key={i}>{plain(line)}</li>
                ))}
              </ul>
            </section>
          ))}
        </div>
      );
    case 'PHOTO':
      return (
        <div className="flex h-full flex-col justify-center gap-[2cqh]">
          <img src={`/api/files/${piece.body.hash}`} alt={piece.body.alt ?? ''} className="mx-auto max-h-[80cqh]" />
          {piece.body.caption && <p className="stage-sub text-center">{piece.body.caption}</p>}
        </div>
      );
    case 'FIGURE':
      return <FigureScene question={piece.body.question} step={step} order={order} onSteps={onSteps} />;
    default:
      return null;
  }
}

const plain = (text: string) => text.replace(/\[([^\]]*)\]\([^)]*\)/g, '$1').replace(/[*_`]/g, '');

function FigureScene({
  question,
  step,
  order,
  onSteps,
}: {
  question: FigureQuestion;
  step: number;
  order: Order;
  onSteps: (n: number) => void;
}) {
  if (question.of === 'bars' && !question.beside?.length)
    return <BarsScene question={question} step={step} order={order} onSteps={onSteps} />;
  if (question.of === 'ratios') return <RatiosScene question={question} step={step} order={order} onSteps={onSteps} />;
  if (question.of === 'standing')
    return <StandingScene question={question} step={step} order={order} onSteps={onSteps} />;
  if (question.of === 'charts') return <ChartsScene question={question} step={step} onSteps={onSteps} />;
  return <WholeScene question={question} />;
}

/** One chart after another. */
function ChartsScene({
  question,
  step,
  onSteps,
}: {
  question: FigureQuestion & { of: 'charts' };
  step: number;
  onSteps: (n: number) => void;
}) {
  const asked = useQuery(chartsOfStanding(question.asked));
  const charts = asked.data ? chartsOf(asked.data, question.highlight, ON_STAGE) : undefined;
  const many = charts?.length;
  useEffect(() => {
    if (many !== undefined) onSteps(Math.max(1, many));
  }, [many, onSteps]);
  if (!charts) return <NotYet error={asked.error} onSteps={onSteps} />;
  const at = Math.min(step, charts.length - 1);
  const chart = charts[at];
  if (!chart) return <p className="stage-sub">Nothing that it asks for was measured.</p>;
  const [name, how] = chartHeading(chart.metric);
  return (
    <>
      <h1 className="stage-title">{name}</h1>
      <p className="stage-sub">
        {how}
        {charts.length > 1 && ` · ${at + 1} of ${charts.length}`}
      </p>
      <div className="stage-drawing">
        <Drawing svg={chart.drawn.svg} alt={chart.drawn.alt} />
      </div>
    </>
  );
}

/** What has no rows is shown as it stands in the page. */
function WholeScene({ question }: { question: FigureQuestion }) {
  const now = useFigure(question);
  if (now.state !== 'drawn') return <p className="stage-sub">{now.state === 'nothing' ? now.why : ''}</p>;
  return (
    <div className="flex h-full flex-col justify-center">
      <div className="stage-drawing">
        <Drawing svg={now.drawn.svg} alt={now.drawn.alt} />
      </div>
      <p className="stage-sub">{now.drawn.caption}</p>
    </div>
  );
}

/** Whether how many steps a piece has is known only once its numbers are there. */
export function hasRows(piece: Piece | undefined): boolean {
  return (
    piece?.kind === 'FIGURE' &&
    (piece.body.question.of === 'ratios' ||
      piece.body.question.of === 'charts' ||
      piece.body.question.of === 'standing' ||
      (piece.body.question.of === 'bars' && !piece.body.question.beside?.length))
  );
}
