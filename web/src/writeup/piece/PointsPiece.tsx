import { useQuery } from '@tanstack/react-query';
import { useContext } from 'react';
import { api, value } from '../../api/client.ts';
import { NumbersMargin } from './Margin.tsx';
import { nextNumber, withoutNumber, withWords } from '../question/number-words.ts';
import { ComparedAs, Offered } from './NumberPicker.tsx';
import type { Props } from './piece-parts.ts';
import { proposals, type Proposal } from '../question/proposals.ts';
import type { Bodies, Numbers } from '../question/questions.ts';
import { reportOf } from '../figure/shown.ts';
import { TextField } from './TextField.tsx';
import { compared } from '../figure/answers.ts';
import { useNumbers } from '../figure/use-answers.ts';

/** Strong and weak, line by line, with what the numbers suggest beside them. */
export function PointsPart({ piece, onChange, children }: Props<'POINTS'>) {
  const { strong, weak, numbers } = piece.body;
  const now = useNumbers(numbers);
  const both = [...strong, ...weak].join('\n\n');
  const each = (change: (line: string) => string) =>
    onChange({ ...piece.body, strong: strong.map(change), weak: weak.map(change) });
  return children({
    body: (
      <div className="grid grid-cols-2 gap-x-7 text-[15px] max-sm:grid-cols-1">
        {(['strong', 'weak'] as const).map((side) => (
          <Points
            key={side}
            title={side === 'strong' ? 'Strong' : 'Weak'}
            lines={piece.body[side]}
            numbers={numbers}
            now={now}
            onChange={(lines, of) => onChange({ ...piece.body, [side]: lines, numbers: of })}
          />
        ))}
      </div>
    ),
    margin: (
      <>
        <NumbersMargin
          text={both}
          numbers={now}
          onTake={(id, words) => each((line) => withWords(line, id, words))}
          onDrop={(id) => each((line) => withoutNumber(line, id))}
        />
        <Proposed body={piece.body} onChange={onChange} />
      </>
    ),
    report: reportOf([...strong, ...weak], now),
  });
}

/** What the numbers suggest and the writer has neither taken nor dropped. */
function Proposed({ body, onChange }: { body: Bodies['POINTS']; onChange: (body: Bodies['POINTS']) => void }) {
  const [configuration, base] = useContext(Offered);
  const as = useContext(ComparedAs);
  const by = configuration !== undefined && base !== undefined ? as(configuration, base) : undefined;
  const comparison = useQuery({
    ...compared(configuration ?? 0, base ?? 0, by),
    enabled: configuration !== undefined && base !== undefined,
  });
  const model = comparison.data?.sides[0]?.configuration.modelId;
  const claims = useQuery({
    queryKey: ['claims', model],
    queryFn: () => value(api.GET('/api/models/{id}/claims', { params: { path: { id: model! } } })),
    enabled: model !== undefined,
  });
  if (!comparison.data) return null;
  const taken = new Set(Object.values(body.numbers ?? {}).map((q) => (q.of === 'ratio' ? `ratio:${q.metric}` : '')));
  const open = proposals(comparison.data, claims.data ?? [], by).filter(
    (p) => !taken.has(p.key) && !body.dropped?.includes(p.key),
  );
  const dropped = (key: string) => [...(body.dropped ?? []), key];
  function take(p: Proposal) {
    const next = nextNumber(body.numbers);
    const line = p.number ? p.words.replace('{n}', `[${p.number.words}](number:${next})`) : p.words;
    onChange({
      ...body,
      [p.side]: [...body[p.side], line],
      dropped: dropped(p.key),
      numbers: p.number ? { ...body.numbers, [next]: p.number.question } : body.numbers,
    });
  }
  return (
    <ul className="mt-2 flex flex-col gap-1">
      {open.map((p) => (
        <li key={p.key}>
          <b className="font-semibold text-ink">Proposed, {p.side}:</b> “{p.words.replace('{n}', p.number?.words ?? '')}
          ”{' '}
          <button className="link" onClick={() => take(p)}>
            take
          </button>{' '}
          ·{' '}
          <button className="link" onClick={() => onChange({ ...body, dropped: dropped(p.key) })}>
            drop
          </button>
        </li>
      ))}
    </ul>
  );
}

function Points({
  title,
  lines,
  numbers,
  now,
  onChange,
}: {
  title: string;
  lines: readonly string[];
  numbers: Numbers | undefined;
  now: ReturnType<typeof useNumbers>;
  onChange: (lines: string[], numbers: Numbers) => void;
}) {
  return (
    <section>
      <h2 className="text-[16px]">{title}</h2>
      <ul className="list-disc pl-4">
        {lines.map((line, i) => (
          <li key={i} className="group">
            <div className="flex items-start gap-1">
              <div className="min-w-0 flex-1">
                <TextField
                  label={`${title}, line ${i + 1}`}
                  placeholder="A point"
                  line
                  text={line}
                  numbers={numbers}
                  now={now}
                  onChange={(next, of) =>
                    onChange(
                      lines.map((l, k) => (k === i ? next : l)),
                      of,
                    )
                  }
                />
              </div>
              <button
                className="small link opacity-60 group-hover:opacity-100 focus:opacity-100"
                aria-label={`Drop line ${i + 1} of ${title}`}
                onClick={() =>
                  onChange(
                    lines.filter((_, k) => k !== i),
                    numbers ?? {},
                  )
                }
              >
                drop
              </button>
            </div>
          </li>
        ))}
      </ul>
      <button className="small link mt-1" onClick={() => onChange([...lines, ''], numbers ?? {})}>
        add a line<span className="sr-only"> to {title}</span>
      </button>
    </section>
  );
}
