import { useQueries, type UseQueryResult } from '@tanstack/react-query';
import type { Schemas } from '../../api/client.ts';
import { liveFact, liveOverall, liveRatio, liveValue, missing, type LiveNumber } from '../question/number-words.ts';
import type { FigureQuestion, NumberQuestion, Numbers } from '../question/questions.ts';
import { compared, configurationOf, valuesOf } from './answers.ts';
import type { Drawn } from './drawn.ts';
import { draw, nothingWords, sourcesOf } from './kinds.ts';

/** A number as it is now, or why there is none. */
export type NumberNow = { state: 'waiting' } | { state: 'known'; now: LiveNumber } | { state: 'gone'; why: string };

type Source = Schemas['Comparison'] | Schemas['AskedValues'] | Schemas['ConfigurationPage'];

function sourceOf(q: NumberQuestion) {
  switch (q.of) {
    case 'ratio':
    case 'overall':
      return compared(q.configuration, q.base, q.by);
    case 'value':
      return valuesOf([q.configuration], []);
    case 'fact':
      return configurationOf(q.configuration);
  }
}

function read(q: NumberQuestion, source: Source): LiveNumber | string {
  switch (q.of) {
    case 'ratio': {
      const comparison = source as Schemas['Comparison'];
      const row = comparison.rows.find((r) => r.metric.id === q.metric);
      const cell = row?.cells[0];
      const now = row && cell && liveRatio(cell, row.metric, comparison.sides[0]!.configuration, comparison, q.by);
      return now ?? missing(cell);
    }
    case 'overall': {
      const comparison = source as Schemas['Comparison'];
      const side = comparison.sides[0]!;
      return liveOverall(side, comparison, q.by) ?? side.noOverall ?? 'there is no overall';
    }
    case 'value': {
      const asked = source as Schemas['AskedValues'];
      const at = asked.metrics.findIndex((m) => m.id === q.metric);
      const row = asked.rows[0];
      const of = row?.values[at];
      return (of && liveValue(of, asked.metrics[at]!, row.configuration)) ?? missing(of);
    }
    case 'fact':
      return liveFact(source as Schemas['ConfigurationPage'], q.key) ?? 'this fact is not noted';
  }
}

/** Every number of a piece. Those of one comparison are asked once. */
export function useNumbers(numbers: Numbers | undefined): Record<string, NumberNow> {
  const entries = Object.entries(numbers ?? {});
  const sources = new Map(entries.map(([, q]) => [JSON.stringify(sourceOf(q).queryKey), sourceOf(q)]));
  const keys = [...sources.keys()];
  const answers = useQueries({ queries: [...sources.values()] as ReturnType<typeof compared>[] });
  return Object.fromEntries(
    entries.map(([id, q]): [string, NumberNow] => {
      const answer = answers[keys.indexOf(JSON.stringify(sourceOf(q).queryKey))] as UseQueryResult<Source, Error>;
      if (answer.data === undefined)
        return [id, answer.isError ? { state: 'gone', why: answer.error.message } : { state: 'waiting' }];
      const found = read(q, answer.data);
      return [id, typeof found === 'string' ? { state: 'gone', why: found } : { state: 'known', now: found }];
    }),
  );
}

export type FigureNow = { state: 'waiting' } | { state: 'drawn'; drawn: Drawn } | { state: 'nothing'; why: string };

/** A figure as its question is answered now. */
export function useFigure(question: FigureQuestion): FigureNow {
  const nobody = 'configurations' in question && question.configurations.length === 0;
  const answers = useQueries({ queries: nobody ? [] : (sourcesOf(question) as ReturnType<typeof compared>[]) });
  if (nobody) return { state: 'nothing', why: 'No device is chosen for it yet.' };
  const failed = answers.find((a) => a.isError);
  if (failed) return { state: 'nothing', why: failed.error.message };
  if (answers.some((a) => a.data === undefined)) return { state: 'waiting' };
  const drawn = draw(
    question,
    answers.map((a) => a.data),
  );
  return drawn ? { state: 'drawn', drawn } : { state: 'nothing', why: nothingWords(question) };
}

/** The pages of configurations, in the order they are asked for; those that are gone are left out. */
export function useConfigurations(ids: readonly number[]) {
  const all = useQueries({ queries: ids.map(configurationOf) });
  return { pages: all.flatMap((q) => (q.data ? [q.data] : [])), waiting: all.some((q) => q.isPending) };
}
