// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { shown } from '../testing/shown.tsx';
import { FormSheet } from './FormSheet.tsx';

afterEach(cleanup);

const NO_DRAFT = { restored: undefined, left: [], startAnew: () => {}, insert: () => {}, discard: () => {} };

function sheet(more: { ready?: boolean; isPending?: boolean; error?: Error }) {
  const [mutate, onCancel] = [vi.fn(), vi.fn()];
  shown(
    <FormSheet
      draft={NO_DRAFT}
      make={{
        mutate,
        isPending: more.isPending ?? false,
        isError: more.error !== undefined,
        error: more.error ?? null,
      }}
      save="Save it"
      ready={more.ready ?? true}
      onCancel={onCancel}
    >
      <input aria-label="Name" required defaultValue="Pack notes" />
    </FormSheet>,
  );
  return { mutate, onCancel, user: userEvent.setup() };
}

test('Ctrl Enter saves from a field, and Escape leaves', async () => {
  const { mutate, onCancel, user } = sheet({});
  await user.click(screen.getByLabelText('Name'));
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(mutate).toHaveBeenCalledTimes(1);
  await user.keyboard('{Escape}');
  expect(onCancel).toHaveBeenCalledTimes(1);
});

test.each([{ ready: false }, { isPending: true }])('nothing is saved while that cannot be: %o', async (state) => {
  const { mutate, user } = sheet(state);
  await user.click(screen.getByLabelText('Name'));
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(mutate).not.toHaveBeenCalled();
  expect(screen.getByRole('button', { name: 'Save it' })).toHaveProperty('disabled', true);
});

test('a field that is needed and empty keeps it from being saved', async () => {
  const { mutate, user } = sheet({});
  await user.clear(screen.getByLabelText('Name'));
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(mutate).not.toHaveBeenCalled();
});

test('what went wrong is said', () => {
  sheet({ error: new Error('The name is taken.') });
  expect(screen.getByRole('alert').textContent).toBe('The name is taken.');
});
