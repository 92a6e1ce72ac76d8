// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { AccessContext } from '../access/access-context.ts';
import type { Schemas } from '../api/client.ts';

const server = vi.hoisted(() => ({ put: [] as unknown[] }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  api: {
    PUT: (path: string, { params, body }: { params: { path: { id: number } }; body: unknown }) => {
      server.put.push([path, params.path.id, body]);
      return Promise.resolve({ data: undefined, response: new Response(null, { status: 200 }) });
    },
  },
}));
const { HowRepeatable } = await import('./HowRepeatable.tsx');

const line = (testId: number, restsOn: string, unmeasured = true) => ({
  metric: { testId, suiteVersionId: 5, suite: 'Kelpline Desk', version: '3' },
  restsOn,
  cells: [{ unmeasured, verdict: 'PROBABLY_GAIN' }],
});
const shown = (rows: unknown[], role = 'REVIEWER') =>
  render(
    <AccessContext
      value={{
        state: 'SIGNED_IN',
        lab: 'Saltmarsh',
        shelf: 's',
        person: 'wren',
        role,
      }}
    >
      <QueryClientProvider client={new QueryClient()}>
        <HowRepeatable comparison={{ rows, base: {}, sides: [] } as unknown as Schemas['Comparison']} />
      </QueryClientProvider>
    </AccessContext>,
  );
beforeEach(() => {
  server.put = [];
});
afterEach(cleanup);

test('it asks once for the whole suite, and an answer is stored for all its tests', async () => {
  shown([line(1, 'as usual for everyday tasks, 2.5 %'), line(2, 'as usual for everyday tasks, 2.5 %')]);
  expect(screen.getByRole('complementary').textContent).toContain(
    'How repeatable is Kelpline Desk 3? It has not been measured here; its noise is taken as usual for everyday tasks, 2.5 %.',
  );
  expect(screen.queryByText('as is usual')).toBeNull();
  fireEvent.click(screen.getByText('3 %'));
  await waitFor(() =>
    expect(server.put).toEqual([
      ['/api/suite-versions/{id}/repeatability', 5, { percent: 3, source: 'said while comparing' }],
    ]),
  );
});

test('what was stated can be taken back to what is usual', async () => {
  shown([line(1, 'as stated, 3 %')]);
  fireEvent.click(screen.getByText('as is usual'));
  await waitFor(() => expect(server.put).toEqual([['/api/suite-versions/{id}/repeatability', 5, {}]]));
});

test('nobody is asked where it was measured, and no reader is', () => {
  shown([line(1, 'as usual for everyday tasks, 2.5 %', false)]);
  expect(screen.queryByRole('complementary')).toBeNull();
  shown([line(1, 'as usual for everyday tasks, 2.5 %')], 'READER');
  expect(screen.queryByRole('complementary')).toBeNull();
});
