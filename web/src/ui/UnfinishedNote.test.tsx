// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { answers, Refusal } from '../testing/answers.ts';
import { shown } from '../testing/shown.tsx';

const server = vi.hoisted(() => ({ api: {} as Record<string, unknown> }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.api;
  },
}));
vi.mock('@tanstack/react-router', async (original) => ({
  ...(await original<object>()),
  Link: ({ children }: { children: unknown }) => <a href="/ledger">{children as string}</a>,
}));
const { UnfinishedNote } = await import('./UnfinishedNote.tsx');

const unfinished = (id: number, configuration: number, deviceClass: string, planned: number | undefined) => ({
  id,
  configuration: {
    id: configuration,
    maker: 'Pellow',
    model: `Drift ${configuration}`,
    name: 'as delivered',
    deviceClass,
  },
  startedAt: '2026-11-12T10:00:00Z',
  measured: 2,
  ...(planned === undefined ? {} : { planned }),
});
const all = [
  unfinished(1, 11, 'LAPTOP', 13),
  unfinished(2, 12, 'LAPTOP', undefined),
  unfinished(3, 13, 'LAPTOP', 4),
  unfinished(4, 14, 'PHONE', 4),
];
let refuses = false;
let known: ReturnType<typeof answers>;
beforeEach(() => {
  refuses = false;
  known = answers({
    'GET /api/sessions/unfinished': () => all,
    'PUT /api/sessions/{id}/counted': () => (refuses ? new Refusal(503, 'The records are away.') : null),
  });
  server.api = known.api;
});
afterEach(cleanup);

test('those that would count here are named, the others are not', async () => {
  shown(<UnfinishedNote of={[11, 14]} />);
  await screen.findByText(/Drift 11/);
  const said = screen.getByRole('note').textContent;
  expect(said).toContain(
    'Pellow Drift 11, as delivered: the session of 12 Nov 2026 was never finished (2 of 13 tests run)',
  );
  expect(said).toContain('Drift 14');
  expect(said).not.toContain('Drift 12');
});

test('many of a class are counted before they are named', async () => {
  shown(<UnfinishedNote within={['LAPTOP']} />);
  await screen.findByText(/Drift 12.*2 tests run/);
  expect(screen.getByRole('note').textContent).not.toContain('Drift 13');
  fireEvent.click(screen.getByText('and 1 more'));
  expect(screen.getByRole('note').textContent).toContain('Drift 13');
  expect(screen.getByRole('note').textContent).not.toContain('Drift 14');
});

test('it counts with one press, and with another one does not', async () => {
  shown(<UnfinishedNote of={[11]} />);
  fireEvent.click(await screen.findByText('count it'));
  await screen.findByText(/counts now/);
  fireEvent.click(screen.getByText('Undo'));
  await screen.findByText('count it');
  expect(known.asked.filter((a) => a.what.startsWith('PUT')).map((a) => a.body)).toEqual([
    { counts: true },
    { counts: false },
  ]);
});

test('a refusal is said, and nothing claims to count', async () => {
  refuses = true;
  shown(<UnfinishedNote of={[11]} />);
  fireEvent.click(await screen.findByText('count it'));
  await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('The records are away.'));
  expect(screen.queryByText(/counts now/)).toBeNull();
});

test('nothing is said where nothing is left off', () => {
  shown(<UnfinishedNote of={[99]} />);
  expect(screen.queryByRole('note')).toBeNull();
});
