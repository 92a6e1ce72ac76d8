// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { answers, Refusal } from '../testing/answers.ts';
import { shown } from '../testing/shown.tsx';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined }));
vi.mock('../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));
const { CommandSuite } = await import('./CommandSuite.tsx');

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const EXAMPLES = 'GET /api/suites/commands/examples';
const DOOR = 'POST /api/suites/commands';
const EXAMPLE = {
  name: 'Pack notes',
  group: 'EVERYDAY',
  needs: 'gzip',
  command: {
    run: { arguments: ['gzip', '-k', 'notes'], shell: false },
    expectedExit: 0,
    limitSeconds: 60,
    cache: 'WARM',
  },
};

test('an example takes the place of the empty command, another is added, and both are saved', async () => {
  server.current = answers({ [EXAMPLES]: () => [EXAMPLE], [DOOR]: () => [1, 2] });
  const done = vi.fn();
  shown(<CommandSuite onDone={done} />);
  const user = userEvent.setup();
  await user.type(screen.getByLabelText('Suite'), 'Everyday programs');
  await screen.findByRole('option', { name: /Pack notes/ });
  await user.selectOptions(screen.getByLabelText('Begin with an example'), '0');
  expect(screen.getByLabelText<HTMLInputElement>('Name of command 1').value).toBe('Pack notes');
  await user.click(screen.getByRole('button', { name: 'One more command' }));
  await user.type(screen.getByLabelText('Name of command 2'), 'Count words');
  await user.type(screen.getByLabelText('Timed of command 2'), 'wc{Enter}-w{Enter}notes');
  await user.click(screen.getByRole('button', { name: 'Save suite' }));
  await vi.waitFor(() => expect(done).toHaveBeenCalled());
  const sent = server.current.asked.find((a) => a.what === DOOR)!.body as {
    tests: { name: string; command: object }[];
  };
  expect(sent.tests.map((t) => t.name)).toEqual(['Pack notes', 'Count words']);
  expect(sent.tests[0]!.command).toEqual(EXAMPLE.command);
  expect(sent.tests[1]!.command).toMatchObject({ run: { arguments: ['wc', '-w', 'notes'], shell: false } });
});

test('what the server or the form refuses is said and nothing is lost', async () => {
  server.current = answers({
    [EXAMPLES]: () => [EXAMPLE],
    [DOOR]: () => new Refusal(422, 'Pack notes: the expression cannot be read', 'commands-refused'),
  });
  shown(<CommandSuite onDone={() => undefined} />);
  const user = userEvent.setup();
  await user.type(screen.getByLabelText('Suite'), 'S');
  await screen.findByRole('option', { name: /Pack notes/ });
  await user.selectOptions(screen.getByLabelText('Begin with an example'), 'all');
  await user.type(screen.getByLabelText('Environment of command 1'), 'nonsense');
  await user.click(screen.getByRole('button', { name: 'Save suite' }));
  expect((await screen.findByRole('alert')).textContent).toContain('“nonsense” is no NAME=value');
  await user.clear(screen.getByLabelText('Environment of command 1'));
  await user.click(screen.getByRole('button', { name: 'Save suite' }));
  await vi.waitFor(() => expect(screen.getByRole('alert').textContent).toContain('cannot be read'));
  expect(screen.getByLabelText<HTMLTextAreaElement>('Timed of command 1').value).toBe('gzip\n-k\nnotes');
});
