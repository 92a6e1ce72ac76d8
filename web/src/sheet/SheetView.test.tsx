// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { answers, Refusal } from '../testing/answers.ts';
import { shown } from '../testing/shown.tsx';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined, session: 0 }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));
vi.mock('@tanstack/react-router', () => ({
  getRouteApi: () => ({ useParams: () => ({ sessionId: String(server.session) }) }),
  Link: ({ children }: { children: ReactNode }) => <span>{children}</span>,
}));
// What stands beside the sheet asks questions of its own.
vi.mock('../evidence/EvidencePart.tsx', () => ({ EvidencePart: () => null }));
vi.mock('./TextPart.tsx', () => ({ TextPart: () => null }));
vi.mock('./LookPart.tsx', () => ({ LookPart: () => null }));

const { SheetView } = await import('./SheetView.tsx');

interface Run {
  number: number;
  state?: string;
  value?: number;
  resolution?: number;
  aside: boolean;
}
let runs: Run[];
let state: string;
let reachable: boolean;

const sheet = () => ({
  session: {
    id: server.session,
    planName: 'Field round',
    state,
    startedAt: '2026-04-01T09:10:00Z',
    configuration: { id: 1, maker: 'Pellow', model: 'Drift 13', name: 'firmware 1' },
  },
  tests: [
    {
      testId: 4,
      name: 'Plot export',
      suite: 'Saltern',
      version: '1',
      computed: false,
      metric: { unit: 'points', direction: 'MORE_IS_BETTER', kind: 'NUMBER', choices: [] },
      runs: runs.map((run) => ({ ...run })),
      others: [],
      further: [],
    },
  ],
});

beforeEach(() => {
  server.session++;
  runs = [1, 2].map((number) => ({ number, aside: false }));
  state = 'OPEN';
  reachable = true;
  Element.prototype.scrollIntoView = vi.fn();
  server.current = answers({
    'GET /api/sessions/{id}/sheet': sheet,
    'POST /api/sessions/{id}/scores': ({ body }) => {
      if (!reachable) throw new Error('no network');
      const { run, text } = body as { run: number; text: string };
      if (state !== 'OPEN') return new Refusal(409, 'This session is over.');
      if (!/^\d/.test(text)) return new Refusal(422, `"${text}" is no score.`);
      runs[run - 1] = { number: run, state: 'OK', value: Number(text), resolution: 1, aside: false };
      return sheet();
    },
    'POST /api/sessions/{id}/end': () => {
      state = 'DONE';
      return sheet();
    },
    'POST /api/sessions/{id}/resume': () => {
      state = 'OPEN';
      return sheet();
    },
  });
});
afterEach(cleanup);

const open = async () => {
  const user = userEvent.setup();
  shown(<SheetView />);
  const cells = await screen.findByRole('group', { name: /^Scores/ });
  await waitFor(() => expect(document.activeElement).toBe(cells));
  return user;
};
const stored = () => runs.map((run) => run.value);
const ended = () => server.current!.asked.filter((a) => a.what.endsWith('/end')).length;

test('a value that was typed and not entered is stored before the session is finished', async () => {
  const user = await open();
  await user.keyboard('41{Enter}42');
  await user.click(screen.getByRole('button', { name: 'Finish' }));
  await screen.findByText(/This session is finished/);
  expect(stored()).toEqual([41, 42]);
  expect(ended()).toBe(1);
});

test('what is refused and what is empty is named, and nothing ends before somebody says so', async () => {
  const user = await open();
  await user.keyboard('nonsense{Enter}');
  await screen.findByRole('region', { name: 'Not stored' });
  await user.click(screen.getByRole('button', { name: 'Finish' }));
  const asks = await screen.findByRole('alertdialog');
  expect(asks.textContent).toContain('Plot export, run 1, “nonsense”: "nonsense" is no score.');
  expect(asks.textContent, 'the refused one is not named twice').toContain('1 empty: Plot export, run 2');
  expect(ended()).toBe(0);
  await user.click(within(asks).getByRole('button', { name: 'Back to the scores' }));
  await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Scores/));
  await user.click(screen.getByRole('button', { name: 'Change' }));
  await user.keyboard('{Backspace>8/}40{Enter}41{Enter}');
  await waitFor(() => expect(stored()).toEqual([40, 41]));
  expect(screen.queryByRole('region', { name: 'Not stored' })).toBeNull();
});

test('without the network nothing is finished, and nothing typed is lost by a reload', async () => {
  reachable = false;
  const user = await open();
  await user.keyboard('41{Enter}42{Enter}');
  await user.click(screen.getByRole('button', { name: 'Finish' }));
  expect((await screen.findByRole('alertdialog')).textContent).toContain('2 not sent yet');
  expect(screen.queryByRole('button', { name: 'Finish without them' })).toBeNull();
  cleanup();

  reachable = true;
  shown(<SheetView />);
  await waitFor(() => expect(stored()).toEqual([41, 42]));
  expect(ended()).toBe(0);
});

test('a number in the field survives a reload, in the field', async () => {
  const user = await open();
  await user.keyboard('{ArrowRight}4');
  expect(screen.getByRole('textbox', { name: 'Plot export, run 2' })).toHaveProperty('value', '4');
  await user.keyboard('7');
  cleanup();
  shown(<SheetView />);
  expect(await screen.findByRole('textbox', { name: 'Plot export, run 2' })).toHaveProperty('value', '47');
  expect(stored()).toEqual([undefined, undefined]);
});

test('after going on the focus is in the sheet, and Enter ends nothing', async () => {
  runs = [
    { number: 1, state: 'OK', value: 41, resolution: 1, aside: false },
    { number: 2, aside: false },
  ];
  state = 'DONE';
  const user = userEvent.setup();
  shown(<SheetView />);
  await user.click(await screen.findByRole('button', { name: 'Go on with it' }));
  await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Scores/));
  await user.keyboard('42{Enter}');
  await waitFor(() => expect(stored()).toEqual([41, 42]));
  expect(ended()).toBe(0);
});

test('Escape takes back what is being typed', async () => {
  const user = await open();
  await user.keyboard('9{Escape}');
  await user.click(screen.getByRole('button', { name: 'Finish' }));
  await user.click(await screen.findByRole('button', { name: 'Finish without them' }));
  await screen.findByText(/This session is finished/);
  expect(stored()).toEqual([undefined, undefined]);
});
