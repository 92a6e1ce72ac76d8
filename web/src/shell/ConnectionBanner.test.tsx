// @vitest-environment jsdom
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { answers, Refusal } from '../testing/answers.ts';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));

const client = await import('../api/client.ts');
const { Ready } = await import('../ui/states.tsx');
const { ConnectionBanner } = await import('./ConnectionBanner.tsx');

/** Records that can be taken away. */
function records() {
  const state = { away: false, makers: ['Pellow'], freeBytes: undefined as number | undefined, notes: [] as string[] };
  const unlessAway = (answer: () => unknown) => () =>
    state.away ? new Refusal(503, 'The records are out of reach just now.', 'records-away') : answer();
  server.current = answers({
    'GET /api/state': unlessAway(() => ({ freeBytes: state.freeBytes, notes: state.notes })),
    'GET /api/makers': unlessAway(() => state.makers),
  });
  return state;
}

function Makers() {
  const makers = useQuery({ queryKey: ['makers'], queryFn: () => client.value(client.api.GET('/api/makers')) });
  return (
    <Ready query={makers} what="makers">
      {(names) => <p>{names.join(', ')}</p>}
    </Ready>
  );
}

function page() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <ConnectionBanner />
      <Makers />
    </QueryClientProvider>,
  );
  return queries;
}

afterEach(cleanup);

test('nothing is said while all is well', async () => {
  records();
  page();
  await screen.findByText('Pellow');
  expect(screen.queryByRole('status')).toBeNull();
});

test('records that are away are said once, what was read stays, and the page comes back by itself', async () => {
  const state = records();
  const queries = page();
  await screen.findByText('Pellow');
  state.away = true;
  void queries.invalidateQueries({ queryKey: ['makers'] });
  await screen.findByText(/out of reach/);
  expect(screen.getByText('Pellow')).toBeTruthy();
  expect(screen.queryByRole('alert'), 'not a second time in the view').toBeNull();
  state.makers = ['Pellow', 'Quenby'];
  state.away = false;
  await screen.findByText('Pellow, Quenby', undefined, { timeout: 5_000 });
  await waitFor(() => expect(screen.queryByText(/out of reach/)).toBeNull());
});

test('what was left out of the index is said', async () => {
  records().notes = ['Pellow Drift 11 (model 7) cannot be searched: it makes no sense.'];
  page();
  await screen.findByText(/Drift 11 \(model 7\) cannot be searched/);
});

test('a disk that is nearly full is said before it is full', async () => {
  const state = records();
  state.freeBytes = 734_000_000;
  page();
  await screen.findByText(/The disk with the records has 734 MB left/);
});
