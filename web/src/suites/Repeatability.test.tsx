// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import type { Schemas } from '../api/client.ts';
import { answers, Refusal } from '../testing/answers.ts';
import { shown } from '../testing/shown.tsx';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));
const { Repeatability } = await import('./Repeatability.tsx');

afterEach(cleanup);

const DOOR = 'PUT /api/tests/{id}/repeatability';
const row = (more: object = {}) => ({ id: 7, name: 'Weir', ...more }) as Schemas['TestRow'];

test('a repeatability is stated with its source', async () => {
  server.current = answers({ [DOOR]: () => undefined });
  shown(<Repeatability test={row()} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'state how repeatable it is: Weir' }));
  await user.type(screen.getByLabelText('Repeats within, in %'), '1.5');
  await user.type(screen.getByLabelText('Who says so, or where'), 'fifty runs in our lab');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByRole('button', { name: 'state how repeatable it is: Weir' })).toBeTruthy();
  expect(server.current.asked).toEqual([{ what: DOOR, body: { percent: 1.5, source: 'fifty runs in our lab' } }]);
});

test('what is stated is shown, can be taken back, and a refusal is said', async () => {
  server.current = answers({
    [DOOR]: () => new Refusal(400, 'A repeatability is 0.0001 to 1000 %.', 'not-a-repeatability'),
  });
  shown(<Repeatability test={row({ repeatability: 2, repeatabilitySource: 'its maker' })} />);
  const user = userEvent.setup();
  expect(screen.getByText(/Stated to repeat within 2 % \(its maker\)/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'change: Weir' }));
  await user.click(screen.getByRole('button', { name: 'Remove' }));
  expect((await screen.findByRole('alert')).textContent).toContain('0.0001 to 1000 %');
  expect(server.current.asked).toEqual([{ what: DOOR, body: {} }]);
});
