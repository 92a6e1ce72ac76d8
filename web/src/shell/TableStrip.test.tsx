// @vitest-environment jsdom
import { act, cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { answers } from '../testing/answers.ts';
import { shown } from '../testing/shown.tsx';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));

const { TableStrip } = await import('./TableStrip.tsx');
const { tableActions } = await import('./table-store.ts');

const MODELS = ['Slate', 'Folio', 'Drift'];
afterEach(() => {
  cleanup();
  for (const id of [1, 2, 3]) tableActions.take(id);
});

function put(count: number) {
  server.current = answers({
    'GET /api/configurations': () =>
      MODELS.map((model, i) => ({ id: i + 1, maker: 'Pellow', model, name: `firmware ${i}` })),
  });
  for (let id = 1; id <= count; id++) tableActions.toggle(id);
  shown(<TableStrip />);
}

const marked = (attribute: string) =>
  [...screen.getByRole('contentinfo').querySelectorAll(`[${attribute}="true"]`)].map((e) =>
    MODELS.find((m) => e.textContent.includes(m)),
  );

test('an empty table says how something gets on it', () => {
  put(0);
  expect(screen.getByRole('contentinfo').textContent).toContain('nothing yet');
});

test('digits light up, b makes the base, Delete takes off', async () => {
  const user = userEvent.setup();
  put(3);
  await screen.findByText('Pellow Drift');
  await user.keyboard('b');
  expect(marked('data-base'), 'nothing is lit yet').toEqual([]);
  await user.keyboard('2');
  expect(marked('data-lit')).toEqual(['Folio']);
  await user.keyboard('b');
  expect(marked('data-base')).toEqual(['Folio']);
  await user.keyboard('2');
  expect(marked('data-lit'), 'the same digit again puts it out').toEqual([]);
  await user.keyboard('3{Delete}');
  expect(screen.queryByText('Pellow Drift')).toBeNull();
  await user.keyboard('2{Delete}');
  expect(marked('data-base'), 'the base is off the table').toEqual([]);
  screen.getByText('Pellow Slate');
});

test('the same by pointer, each by a button that says what it does', async () => {
  const user = userEvent.setup();
  put(2);
  await user.click(await screen.findByRole('button', { name: /Pellow Folio/ }));
  await user.click(within(screen.getByRole('contentinfo')).getByRole('button', { name: 'base' }));
  expect(marked('data-base')).toEqual(['Folio']);
  await user.click(screen.getByRole('button', { name: 'Remove Folio from the table' }));
  expect(screen.queryByText('Pellow Folio')).toBeNull();
});

test('what is no longer on the shelf says so and can be taken off', async () => {
  server.current = answers({ 'GET /api/configurations': () => [] });
  act(() => void tableActions.toggle(1));
  shown(<TableStrip />);
  await screen.findByText('No longer on the shelf');
});
