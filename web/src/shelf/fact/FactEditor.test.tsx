// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, test, vi } from 'vitest';
import { answers } from '../../testing/answers.ts';
import { shown } from '../../testing/shown.tsx';
import { fromFacts, type Entry, type toBody } from './fact-rows.ts';

const server = vi.hoisted(() => ({ current: undefined as ReturnType<typeof answers> | undefined }));
vi.mock('../../api/client.ts', async (original) => ({
  ...(await original<object>()),
  get api() {
    return server.current!.api;
  },
}));
const { FactEditor } = await import('./FactEditor.tsx');

afterEach(cleanup);

const entry = (key: string, label: string): Entry => ({
  key,
  label,
  brief: label,
  group: 'Graphics',
  type: 'TEXT',
  example: '',
  choices: [],
});
const VOCABULARY = [entry('graphics.renderer', 'Graphics'), entry('graphics.memory', 'Graphics memory')];
const fact = (key: string, label: string, text: string) => ({
  key,
  label,
  group: 'Graphics',
  value: text,
  shown: text,
  source: 'READ' as const,
});

function Form({
  names,
  onSave,
  onCancel,
}: {
  names: readonly string[];
  onSave: (facts: ReturnType<typeof toBody>) => void;
  onCancel: () => void;
}) {
  const [rows, setRows] = useState(() =>
    fromFacts(
      names.map((name, i) => fact(`graphics.renderer${i ? `.${i + 1}` : ''}`, `Graphics${i ? ` ${i + 1}` : ''}`, name)),
      VOCABULARY,
    ),
  );
  return (
    <FactEditor
      rows={rows}
      onRows={setRows}
      vocabulary={VOCABULARY}
      saveWords="Save"
      error={null}
      busy={false}
      onSave={onSave}
      onCancel={onCancel}
    />
  );
}

function form(...names: string[]) {
  server.current = answers({
    'POST /api/facts/understand': ({ body }) => ({ shown: (body as { text: string }).text, also: {} }),
    'GET /api/facts/values': () => [],
  });
  const onSave = vi.fn<(facts: ReturnType<typeof toBody>) => void>();
  const onCancel = vi.fn();
  shown(<Form names={names} onSave={onSave} onCancel={onCancel} />);
  return { onSave, onCancel, user: userEvent.setup() };
}

test('which of several tests use is a choice in a sentence, also by keyboard', async () => {
  const { onSave, onCancel, user } = form('Pond 40', 'Weir 900');
  const choice = screen.getByRole('button', { name: /The graphics processor that tests use/ });
  choice.focus();
  await user.keyboard('{Enter}');
  await screen.findByRole('option', { name: 'Weir 900' });
  await user.keyboard('{Escape}');
  expect(onCancel, 'only the list is left').not.toHaveBeenCalled();
  await user.keyboard('{Enter}');
  await user.click(await screen.findByRole('option', { name: 'Weir 900' }));
  expect(screen.getByLabelText<HTMLInputElement>('Graphics').value).toBe('Weir 900');
  expect(screen.getByLabelText<HTMLInputElement>('Graphics 2').value).toBe('Pond 40');
  expect(screen.getByText(/2 changed/)).toBeDefined();
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(onSave.mock.calls[0]![0]).toEqual([
    { key: 'graphics.renderer', text: 'Weir 900', read: true },
    { key: 'graphics.renderer.2', text: 'Pond 40', read: true },
  ]);
});

test('of one alone there is nothing to choose', () => {
  form('Pond 40');
  expect(screen.queryByText(/Tests use/)).toBeNull();
});
