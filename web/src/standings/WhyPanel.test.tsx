// @vitest-environment jsdom
import { cleanup, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { answers } from '../testing/answers.ts';
import { shown } from '../testing/shown.tsx';

const server = vi.hoisted(() => ({ api: {} as Record<string, unknown> }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.api;
  },
}));
vi.mock('@tanstack/react-router', () => ({
  Link: ({ children, to, search }: { children: unknown; to: string; search: unknown }) => (
    <a href={to} data-search={JSON.stringify(search)}>
      {children as string}
    </a>
  ),
}));
vi.mock('../plans/PlannedLinks.tsx', () => ({ PlannedLinks: () => null }));
vi.mock('../plans/use-made-plan.ts', () => ({ useMadePlan: () => ({}) }));
const { WhyPanel } = await import('./WhyPanel.tsx');

const named = (id: number) => ({ id, maker: 'Pellow', model: `Drift ${id}`, name: 'as delivered' });
let ratio: number;
let asked: unknown[];
beforeEach(() => {
  asked = [];
  const known = answers({
    'GET /api/standings/why': () => ({
      configuration: named(2),
      base: named(1),
      index: 178,
      parts: [],
      tests: [],
      missing: [],
      wholeMs: 0,
      guessed: 0,
    }),
    'GET /api/compare': ({ params }) => {
      asked.push(params!.query);
      return { sides: [{ overall: { ratio, shared: 11 } }] };
    },
  });
  server.api = known.api;
});
afterEach(cleanup);

const ask = { purpose: 3, without: ['group:STORAGE'], take: 'ALL', deviceClass: ['LAPTOP' as const] } as const;
const panel = () =>
  shown(
    <WhyPanel
      ask={{ ...ask, deviceClass: [...ask.deviceClass], without: [...ask.without] }}
      configuration={2}
      onLeaveOut={() => undefined}
      onClose={() => undefined}
    />,
  );

test('where the two directly give another number, both are said, and over which tests', async () => {
  ratio = 1.647;
  panel();
  await screen.findByText(/Compared directly with the base it is 1.647/);
  expect(screen.getByRole('note').textContent).toContain('over the 11 tests that both have. The standing says 1.78');
  expect(asked).toEqual([{ base: 1, with: [2], purpose: 3, without: ['group:STORAGE'], take: 'ALL' }]);
  expect(screen.getByText(/Compare the two/).getAttribute('data-search')).toBe(
    JSON.stringify({ ids: [1, 2], base: 1, purpose: 3, without: ['group:STORAGE'], take: 'ALL' }),
  );
});

test('where it is the same number, nothing is said of it', async () => {
  ratio = 1.781;
  panel();
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(screen.queryByRole('note')).toBeNull();
});
