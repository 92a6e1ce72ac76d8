// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { answers, Refusal } from '../testing/answers.ts';
import type { Access } from './access-context.ts';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));
const { Welcome } = await import('./Welcome.tsx');

const ACCESS = { state: 'SIGNED_OUT', lab: 'Saltmarsh' } as Access;

function page(onSignedIn = vi.fn()) {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Welcome access={ACCESS} onSignedIn={onSignedIn} />
    </QueryClientProvider>,
  );
  return onSignedIn;
}

beforeEach(() => {
  window.history.replaceState(null, '', '/welcome#secret');
});
afterEach(cleanup);

test('who is invited comes in, and the link stays nowhere', async () => {
  let sent: unknown;
  server.current = answers({
    'POST /api/access/invitation/look': () => ({ id: 1, role: 'READER', keys: 0, madeBy: 'wren' }),
    'POST /api/access/invitation': (asked) => {
      sent = asked.body;
      return { state: 'SIGNED_IN', lab: 'Saltmarsh', person: 'Merle' };
    },
  });
  const entered = page();
  await screen.findByText('wren invites you as a reader.');
  fireEvent.change(screen.getByLabelText('Your name'), { target: { value: 'Merle' } });
  fireEvent.change(screen.getByLabelText(/^Password/), { target: { value: 'heron kettle gravel' } });
  fireEvent.click(screen.getByText('Come in'));
  await waitFor(() => expect(entered).toHaveBeenCalled());
  expect(sent).toEqual({ token: 'secret', name: 'Merle', password: 'heron kettle gravel' });
  expect(window.location.href).not.toContain('secret');
});

test('a link that is used up says so, and a refused password keeps what was typed', async () => {
  server.current = answers({
    'POST /api/access/invitation/look': () => new Refusal(410, 'This link works once.', 'link-used'),
  });
  page();
  await screen.findByText('This link works once.');
  cleanup();
  server.current = answers({
    'POST /api/access/invitation/look': () => ({ id: 1, name: 'wren', keys: 0, madeBy: 'the machine' }),
    'POST /api/access/invitation': () => new Refusal(400, 'Take another.', 'weak-password'),
  });
  page();
  await screen.findByText(/For wren/);
  expect(screen.queryByLabelText('Your name')).toBeNull();
  fireEvent.change(screen.getByLabelText(/^Password/), { target: { value: 'password12' } });
  fireEvent.click(screen.getByText('Keep the password'));
  await screen.findByText('Take another.');
  expect(screen.getByLabelText<HTMLInputElement>(/^Password/).value).toBe('password12');
});

test('who has keys for programs is asked whether they end with the old password', async () => {
  let sent: unknown;
  server.current = answers({
    'POST /api/access/invitation/look': () => ({ id: 1, name: 'wren', keys: 2, madeBy: 'merle' }),
    'POST /api/access/invitation': (asked) => {
      sent = asked.body;
      return { state: 'SIGNED_IN', lab: 'Saltmarsh', person: 'wren' };
    },
  });
  const entered = page();
  await screen.findByText(/You have 2 keys for programs/);
  expect(screen.getByLabelText<HTMLInputElement>('End them as well').checked).toBe(false);
  expect(screen.getByLabelText<HTMLInputElement>('Keep them').checked).toBe(false);
  fireEvent.click(screen.getByLabelText('End them as well'));
  fireEvent.change(screen.getByLabelText(/^Password/), { target: { value: 'heron kettle gravel' } });
  fireEvent.click(screen.getByText('Keep the password'));
  await waitFor(() => expect(entered).toHaveBeenCalled());
  expect(sent).toMatchObject({ endKeys: true });
});
