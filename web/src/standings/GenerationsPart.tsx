import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { times } from '../format/ratio.ts';
import { verdictWords } from '../format/verdict.ts';
import { index } from '../format/format.ts';
import { Empty, Ready } from '../ui/states.tsx';
import type { Ask } from './question/ask.ts';

type Step = Schemas['StepSize'];

/** Lines of models that follow one another, and how large the steps are. */
export function GenerationsPart({ ask }: { ask: Ask }) {
  const lines = useQuery({
    queryKey: ['generations', ask],
    queryFn: () => value(api.GET('/api/standings/generations', { params: { query: ask } })),
  });
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <Ready query={lines} what="the generations">
        {(data) =>
          data.lines.length === 0 ? (
            <Empty title="No model follows another yet">
              On a model’s page, say under “Follows” which model it comes after. Its line is then shown here, with the
              size of each step.{' '}
              <Link to="/shelf" className="link">
                Go to the shelf
              </Link>
            </Empty>
          ) : (
            <>
              <p className="small mb-2">
                Over {data.scope}
                {data.instead && ', because more of these models can be ranked over that than over what is asked for'}.
                Steps are ratios of indexes, with 95 % intervals as for places; a model stands in with its newest
                configuration that is ranked here.
              </p>
              {data.lines.map((line) => (
                <section
                  key={line.generations.map((g) => g.modelId).join()}
                  className="border-b border-hair-2 py-3"
                  aria-label={`Line of ${line.generations.at(-1)!.maker} ${line.generations.at(-1)!.model}`}
                >
                  <ol className="flex flex-wrap items-stretch gap-y-3">
                    {line.generations.map((g, i) => (
                      <li key={g.modelId} className="flex items-center">
                        {i > 0 && <StepArrow step={g.step} />}
                        <div className="min-w-32">
                          <Link
                            to="/shelf/models/$modelId"
                            params={{ modelId: String(g.modelId) }}
                            className="font-semibold hover:underline"
                          >
                            {g.maker} {g.model}
                          </Link>
                          {g.index === undefined ? (
                            <p className="small max-w-56">Not ranked here: {g.missing}.</p>
                          ) : (
                            <p className="font-title text-[21px] leading-tight">{index(g.index)}</p>
                          )}
                          <p className="small max-w-56 truncate" title={g.configuration?.name}>
                            {g.configuration?.name}
                          </p>
                        </div>
                      </li>
                    ))}
                  </ol>
                  {line.whole && line.generations.length > 2 && (
                    <p className="mt-1">From first to last: {words(line.whole)}.</p>
                  )}
                </section>
              ))}
            </>
          )
        }
      </Ready>
    </div>
  );
}

function words(step: Step): string {
  return `${times(step.ratio, 3)}, ${verdictWords(step.verdict)}${step.low !== undefined && step.high !== undefined ? `, 95 % interval ${times(step.low, 3)} to ${times(step.high, 3)}` : ''}`;
}

function StepArrow({ step }: { step: Step | undefined }) {
  if (!step)
    return (
      <span className="px-4 text-ink-3" aria-label="no step can be told">
        ⋯
      </span>
    );
  const tone = step.verdict.endsWith('GAIN') ? 'text-leaf' : step.verdict.endsWith('LOSS') ? 'text-plum' : '';
  return (
    <span className="flex flex-col items-center px-4" title={words(step)}>
      <span className={`text-[15px] font-semibold ${tone}`}>{times(step.ratio)}</span>
      <span className="small">{verdictWords(step.verdict)}</span>
      <span aria-hidden="true" className="text-ink-3">
        ⟶
      </span>
    </span>
  );
}
