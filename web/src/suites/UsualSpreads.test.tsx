// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { AccessContext } from '../access/access-context.ts';

const server = vi.hoisted(() => ({ put: [] as unknown[], percent: {} as Record<string, number>, refuse: '' }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  api: {
    GET: () => Promise.resolve({ data: { percent: server.percent }, response: new Response() }),
    PUT: (_path: string, { body }: { body: { percent: Record<string, number> } }) => {
      server.put.push(body.percent);
      if (server.refuse)
        return Promise.resolve({ error: { detail: server.refuse }, response: new Response(null, { status: 400 }) });
      server.percent = { ...server.percent, ...body.percent };
      return Promise.resolve({ data: { percent: server.percent }, response: new Response() });
    },
  },
}));
const { UsualSpreads } = await import('./UsualSpreads.tsx');
const { TEST_GROUPS } = await import('../format/format.ts');

beforeEach(() => {
  server.put = [];
  server.refuse = '';
  server.percent = Object.fromEntries(TEST_GROUPS.map((g) => [g, 2]));
  render(
    <QueryClientProvider client={new QueryClient()}>
      <UsualSpreads />
    </QueryClientProvider>,
  );
});
afterEach(cleanup);

test('one group is changed by typing, with a comma as well, and only where it is another number', async () => {
  const field = await screen.findByLabelText(/Browser/);
  fireEvent.change(field, { target: { value: '2' } });
  fireEvent.blur(field);
  expect(server.put).toEqual([]);
  fireEvent.change(field, { target: { value: '3,5' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  await waitFor(() => expect(server.put).toEqual([{ BROWSER: 3.5 }]));
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>(/Browser/).value).toBe('3.5'));
});

test('a reader sees them and changes nothing', async () => {
  cleanup();
  render(
    <AccessContext value={{ state: 'SIGNED_IN', lab: 'Saltmarsh', role: 'READER' }}>
      <QueryClientProvider client={new QueryClient()}>
        <UsualSpreads />
      </QueryClientProvider>
    </AccessContext>,
  );
  expect((await screen.findByLabelText<HTMLInputElement>(/Browser/)).disabled).toBe(true);
});

test('what the server refuses is said beside the field, and stays there to be mended', async () => {
  server.refuse = 'The usual spread of Memory is 0.0001 to 1000 %, not 0 %.';
  const field = await screen.findByLabelText(/Memory/);
  fireEvent.change(field, { target: { value: '0' } });
  fireEvent.blur(field);
  expect((await screen.findByRole('alert')).textContent).toContain('0.0001 to 1000 %');
  expect(screen.getByLabelText<HTMLInputElement>(/Memory/).value).toBe('0');
});
