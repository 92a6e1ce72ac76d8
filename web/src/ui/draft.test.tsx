// @vitest-environment jsdom
import { act, cleanup, render, renderHook, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { AccessContext, type Access } from '../access/access-context.ts';
import { shown } from '../testing/shown.tsx';
import { DraftNote, useDraft } from './draft.tsx';

interface Form {
  name: string;
  runs: number;
}
const NOTHING: Form = { name: '', runs: 3 };
const signedIn =
  (person: string) =>
  ({ children }: { children: ReactNode }) => (
    <AccessContext value={{ state: 'SIGNED_IN', person } as Access}>{children}</AccessContext>
  );
const open = (place = 'plan', from = NOTHING, person = 'wren') =>
  renderHook(() => useDraft(place, from), { wrapper: signedIn(person) });

const type = (form: ReturnType<typeof open>, typed: Form) => act(() => form.result.current.set(typed));

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('what was typed and not saved is there again, until it is saved', () => {
  const first = open();
  act(() => first.result.current.set({ name: 'Long night', runs: 5 }));
  first.unmount();
  const again = open();
  expect(again.result.current.value).toEqual({ name: 'Long night', runs: 5 });
  expect(again.result.current.restored).toBe(true);
  act(() => again.result.current.forget());
  // The last change before a form closes comes after it was saved.
  act(() => again.result.current.set({ name: 'late', runs: 1 }));
  again.unmount();
  expect(open().result.current.value).toEqual(NOTHING);
});

test('each person and each place has its own', () => {
  type(open(), { name: 'mine', runs: 3 });
  expect(open('plan', NOTHING, 'dunlin').result.current.restored).toBe(false);
  expect(open('suite').result.current.restored).toBe(false);
  expect(open().result.current.value.name).toBe('mine');
});

test('a draft of something that changed meanwhile is not put over it', () => {
  type(open('plan 7', { name: 'a', runs: 3 }), { name: 'b', runs: 3 });
  const changed = open('plan 7', { name: 'a', runs: 9 });
  expect(changed.result.current.value).toEqual({ name: 'a', runs: 9 });
});

test('going back to the beginning keeps nothing, and so does what is no draft', () => {
  const form = open();
  act(() => form.result.current.set({ name: 'x', runs: 3 }));
  act(() => form.result.current.set({ ...NOTHING }));
  expect(localStorage.length).toBe(0);
  localStorage.setItem('yarrowmark.draft..wren.plan', '{"from":');
  expect(open().result.current.value).toEqual(NOTHING);
});

test('where the browser keeps nothing, leaving asks', () => {
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  const leave = () => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event.defaultPrevented;
  };
  const form = open();
  expect(leave()).toBe(false);
  act(() => form.result.current.set({ name: 'x', runs: 3 }));
  expect(leave()).toBe(true);
  act(() => form.result.current.forget());
  expect(leave()).toBe(false);
});

test('the form says that it holds what was typed earlier, and can begin anew', async () => {
  type(open('note'), { name: 'old', runs: 3 });
  cleanup();
  function View() {
    const draft = useDraft('note', NOTHING);
    return (
      <>
        <DraftNote draft={draft} />
        <p>{draft.value.name || 'empty'}</p>
      </>
    );
  }
  shown(
    <AccessContext value={{ state: 'SIGNED_IN', person: 'wren' } as Access}>
      <View />
    </AccessContext>,
  );
  screen.getByText('old');
  await userEvent.setup().click(screen.getByRole('button', { name: 'Discard it' }));
  screen.getByText('empty');
  expect(screen.queryByRole('status')).toBeNull();
  expect(localStorage.length).toBe(0);
});

test('two fields that are set in one event are both kept', async () => {
  function Two() {
    const draft = useDraft('two', { a: '', b: '' });
    const [a, setA] = draft.field('a');
    const [b, setB] = draft.field('b');
    return (
      <button
        onClick={() => {
          setA('one');
          setB('two');
        }}
      >
        {a || 'nothing'} {b}
      </button>
    );
  }
  const { unmount } = render(<Two />);
  await userEvent.click(screen.getByRole('button'));
  expect(screen.getByRole('button').textContent).toBe('one two');
  unmount();
  render(<Two />);
  expect(screen.getByRole('button').textContent, 'and offered again').toBe('one two');
});
