// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { act, cleanup, render, renderHook, screen, waitFor } from '@testing-library/react';
import { IDBFactory } from 'fake-indexeddb';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { AccessContext, type Access } from '../access/access-context.ts';
import { shown } from '../testing/shown.tsx';
import { UnsentStore } from './store.ts';
import { forgetOpenStores } from './use-unsent.ts';
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

beforeEach(() => {
  localStorage.clear();
  globalThis.indexedDB = new IDBFactory();
  forgetOpenStores();
});
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
  expect(again.result.current.restored).toBeDefined();
  act(() => again.result.current.forget());
  // The last change before a form closes comes after it was saved.
  act(() => again.result.current.set({ name: 'late', runs: 1 }));
  again.unmount();
  expect(open().result.current.value).toEqual(NOTHING);
});

test('each person and each place has its own', () => {
  type(open(), { name: 'mine', runs: 3 });
  expect(open('plan', NOTHING, 'dunlin').result.current.restored).toBeUndefined();
  expect(open('suite').result.current.restored).toBeUndefined();
  expect(open().result.current.value.name).toBe('mine');
});

test('a draft of something that changed meanwhile is not put over it, but offered', () => {
  type(open('plan 7', { name: 'a', runs: 3 }), { name: 'b', runs: 3 });
  const changed = open('plan 7', { name: 'a', runs: 9 });
  expect(changed.result.current.value).toEqual({ name: 'a', runs: 9 });
  expect(changed.result.current.left).toMatchObject([{ outdated: true, lines: ['name: b', 'runs: 3'] }]);
  // Typing beside it takes nothing away.
  type(changed, { name: 'c', runs: 9 });
  expect(changed.result.current.left).toHaveLength(1);
  act(() => changed.result.current.insert(changed.result.current.left[0]!));
  expect(changed.result.current.value).toEqual({ name: 'b', runs: 3 });
  expect(changed.result.current.left, 'what it took the place of').toMatchObject([{ lines: ['name: c', 'runs: 9'] }]);
  act(() => changed.result.current.discard(changed.result.current.left[0]!));
  expect(changed.result.current.left).toEqual([]);
});

test('two tabs with one form each keep their own; what a closed one left is offered', async () => {
  const other = new UnsentStore({ shelf: '', person: 'wren' });
  other.tab = 'other';
  await other.ready;
  other.put('form', 'plan\nother', { from: NOTHING, now: { name: 'there', runs: 3 } });
  const mine = open();
  const news = new BroadcastChannel('yarrowmark-unsent yarrowmark  wren');
  news.postMessage({ here: 'other' });
  type(mine, { name: 'here', runs: 3 });
  await waitFor(() => expect(mine.result.current.left, 'an open tab goes on by itself').toEqual([]));
  act(() => mine.result.current.startAnew());
  expect(other.get('form', 'plan\nother'), 'letting go of one leaves the other').toBeDefined();
  other.close();
  news.postMessage({ closed: 'other' });
  await waitFor(() => expect(mine.result.current.left).toHaveLength(1));
  act(() => mine.result.current.insert(mine.result.current.left[0]!));
  expect(mine.result.current.value.name).toBe('there');
  news.close();
});

test('going back to the beginning keeps nothing, and so does what is no draft', async () => {
  const form = open();
  act(() => form.result.current.set({ name: 'x', runs: 3 }));
  act(() => form.result.current.set({ ...NOTHING }));
  await waitFor(() => expect(localStorage.length).toBe(0));
  localStorage.setItem('yarrowmark.unsent..wren.form.plan', '{"from":');
  forgetOpenStores();
  expect(open().result.current.value).toEqual(NOTHING);
});

test('where the browser keeps nothing, leaving asks', async () => {
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  vi.spyOn(indexedDB, 'open').mockImplementation(() => {
    throw new DOMException('no storage', 'SecurityError');
  });
  const leave = () => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event.defaultPrevented;
  };
  const form = open();
  expect(leave()).toBe(false);
  act(() => form.result.current.set({ name: 'x', runs: 3 }));
  await waitFor(() => expect(leave()).toBe(true));
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
  await waitFor(() => expect(localStorage.length).toBe(0));
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
