import { QueryObserver } from '@tanstack/react-query';
import { expect, test } from 'vitest';
import { FreshQueries } from './fresh-queries.ts';

/** A question that a view asks; each answer waits until it is let go. */
function asked(queries: FreshQueries) {
  const answers: ((answer: string) => void)[] = [];
  const observer = new QueryObserver(queries, {
    queryKey: ['ledger'],
    queryFn: () => new Promise<string>((resolve) => answers.push(resolve)),
    retry: false,
  });
  const shown: (string | undefined)[] = [];
  const leave = observer.subscribe((result) => shown.push(result.data));
  return { answers, shown, leave };
}

test('a change while the first answer is on its way is asked for again', async () => {
  const queries = new FreshQueries();
  const { answers, shown, leave } = asked(queries);
  await expect.poll(() => answers.length).toBe(1);
  const done = queries.invalidateQueries({ queryKey: ['ledger'] });
  answers[0]!('30 lines');
  await expect.poll(() => answers.length).toBe(2);
  answers[1]!('31 lines');
  await done;
  expect(shown.at(-1)).toBe('31 lines');
  leave();
});

test('a change of something else asks nothing again', async () => {
  const queries = new FreshQueries();
  const { answers, leave } = asked(queries);
  await expect.poll(() => answers.length).toBe(1);
  await queries.invalidateQueries({ queryKey: ['standings'] });
  answers[0]!('30 lines');
  await expect.poll(() => queries.isFetching()).toBe(0);
  expect(answers).toHaveLength(1);
  leave();
});

test('with an answer there, a change asks once', async () => {
  const queries = new FreshQueries();
  const { answers, shown, leave } = asked(queries);
  await expect.poll(() => answers.length).toBe(1);
  answers[0]!('30 lines');
  await expect.poll(() => shown.at(-1)).toBe('30 lines');
  const done = queries.invalidateQueries({ queryKey: ['ledger'] });
  answers[1]!('31 lines');
  await done;
  expect(answers).toHaveLength(2);
  leave();
});

test('a view that is left while its first answer is on its way is asked again only when it is opened', async () => {
  const queries = new FreshQueries();
  const { answers, leave } = asked(queries);
  await expect.poll(() => answers.length).toBe(1);
  const done = queries.invalidateQueries({ queryKey: ['ledger'] });
  leave();
  answers[0]!('30 lines');
  await done;
  expect(answers).toHaveLength(1);
  expect(queries.getQueryState(['ledger'])?.isInvalidated).toBe(true);
});
