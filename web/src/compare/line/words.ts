import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { api, value, type Schemas } from '../../api/client.ts';
import type { paths } from '../../api/schema';

/** What a comparison is asked for, as the interface takes it. */
export type Question = paths['/api/compare']['get']['parameters']['query'];

/** Each line of a comparison in sentences to quote. */
export type Words = UseQueryResult<Schemas['ComparedWords'][], Error>;

/** They come after the numbers, which would wait for them. */
export function useWords(question: Question, numbersAreThere: boolean): Words {
  const { purpose: _purpose, without: _without, ...query } = question;
  return useQuery({
    queryKey: ['comparison', 'words', query],
    queryFn: ({ signal }) => value(api.GET('/api/compare/sentences', { params: { query }, signal })),
    enabled: numbersAreThere,
  });
}

/** Undefined where there is none, or not yet. */
export function sentence(words: Words, metric: number, side: number): string | undefined {
  return words.data?.find((w) => w.metricId === metric)?.sentences[side] || undefined;
}
