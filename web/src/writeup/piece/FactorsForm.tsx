import { useQuery } from '@tanstack/react-query';
import { Choice } from '../../ui/Choice.tsx';
import type { FigureQuestion } from '../question/questions.ts';
import { factorsOf } from '../figure/answers.ts';

/** Which two facts, and what stands in the cells. */
export function FactorsForm({
  question,
  onChange,
}: {
  question: FigureQuestion & { of: 'factors' };
  onChange: (q: FigureQuestion) => void;
}) {
  const { data: grid } = useQuery({ ...factorsOf(question), enabled: question.configurations.length > 1 });
  if (!grid?.first || !grid.second) return '.';
  const { first, second } = grid;
  const options = (other: string) =>
    grid.choices
      .filter((c) => c.key !== other)
      .map((c) => ({ value: c.key, label: c.label.toLowerCase(), detail: c.levels.join(' · ') }));
  return (
    <>
      :{' '}
      <Choice
        name="First factor"
        value={first.key}
        options={options(second.key)}
        onChoose={(key) => onChange({ ...question, first: key, second: second.key })}
      >
        {first.label.toLowerCase()}
      </Choice>{' '}
      and{' '}
      <Choice
        name="Second factor"
        value={second.key}
        options={options(first.key)}
        onChoose={(key) => onChange({ ...question, first: first.key, second: key })}
      >
        {second.label.toLowerCase()}
      </Choice>
      , by{' '}
      <Choice
        name="What the cells hold"
        value={question.metric}
        options={[
          { value: undefined as number | undefined, label: 'the overall' },
          ...grid.metrics.map((m) => ({ value: m.id, label: m.test, detail: m.unit })),
        ]}
        onChoose={(metric) => onChange({ ...question, metric })}
      >
        {grid.metric?.test ?? 'the overall'}
      </Choice>
      .
    </>
  );
}
