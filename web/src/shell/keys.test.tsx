// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, test, vi } from 'vitest';
import { keysNow, useGo, useKeys } from './keys.ts';

afterEach(cleanup);

function View({ run }: { run: (n: number) => void }) {
  const [n, setN] = useState(0);
  useKeys([{ key: 'n', does: 'Count', run: () => (run(n), setN(n + 1)) }]);
  return <input aria-label="Field" />;
}

test('a key acts on what is shown now, and not while somebody writes', async () => {
  const run = vi.fn();
  const user = userEvent.setup();
  render(<View run={run} />);
  await user.keyboard('nn');
  expect(run.mock.calls).toEqual([[0], [1]]);
  await user.type(screen.getByLabelText('Field'), 'nnn');
  expect(run).toHaveBeenCalledTimes(2);
});

test('a key with Ctrl, Alt or Meta belongs to the browser', async () => {
  const run = vi.fn();
  const user = userEvent.setup();
  render(<View run={run} />);
  await user.keyboard('{Control>}n{/Control}{Alt>}n{/Alt}{Meta>}n{/Meta}');
  expect(run).not.toHaveBeenCalled();
});

test('behind an open dialog no key of a view acts', async () => {
  const run = vi.fn();
  const user = userEvent.setup();
  const { rerender } = render(
    <>
      <View run={run} />
      <div role="dialog" aria-label="Panel" />
    </>,
  );
  await user.keyboard('n');
  expect(run).not.toHaveBeenCalled();
  rerender(<View run={run} />);
  await user.keyboard('n');
  expect(run).toHaveBeenCalledTimes(1);
});

function Table({ open, followed }: { open: () => void; followed: () => void }) {
  useKeys([
    { key: 'Enter', does: 'Open the row', run: open },
    { key: 'ArrowDown', does: 'Next row', run: open },
  ]);
  return (
    <>
      <a href="#there" onClick={followed}>
        There
      </a>
      <button onClick={followed}>Do it</button>
      <div role="tab" tabIndex={0}>
        Tab
      </div>
    </>
  );
}

test('Enter on a link or a button is theirs, and the view’s everywhere else', async () => {
  const open = vi.fn();
  const followed = vi.fn();
  const user = userEvent.setup();
  render(<Table open={open} followed={followed} />);
  await user.keyboard('{Enter}');
  expect([open.mock.calls.length, followed.mock.calls.length]).toEqual([1, 0]);
  screen.getByRole('link').focus();
  await user.keyboard('{Enter}');
  screen.getByRole('button').focus();
  await user.keyboard('{Enter}');
  expect([open.mock.calls.length, followed.mock.calls.length]).toEqual([1, 2]);
  await user.keyboard('{ArrowDown}');
  expect(open, 'a button does nothing with an arrow').toHaveBeenCalledTimes(2);
  await user.keyboard('{Enter}');
  expect([open.mock.calls.length, followed.mock.calls.length], 'the row was gone to').toEqual([3, 2]);
  screen.getByRole('tab').focus();
  await user.keyboard('{ArrowDown}');
  expect(open).toHaveBeenCalledTimes(3);
});

test('behind an open menu no key of a view acts', async () => {
  const run = vi.fn();
  const user = userEvent.setup();
  render(
    <>
      <View run={run} />
      <div role="menu" />
    </>,
  );
  await user.keyboard('n');
  expect(run).not.toHaveBeenCalled();
});

test('the help lists the keys of what is open and no longer those of what is closed', () => {
  const { unmount } = render(<View run={vi.fn()} />);
  expect(keysNow().map((k) => k.does)).toContain('Count');
  unmount();
  expect(keysNow()).toEqual([]);
});

function Along({ go, single }: { go: () => void; single: () => void }) {
  useKeys([{ key: 'b', does: 'Base', run: single }]);
  useGo({ b: go });
  return null;
}

test('g and a letter go somewhere, and the letter alone keeps its own meaning', async () => {
  const go = vi.fn();
  const single = vi.fn();
  const user = userEvent.setup();
  render(<Along go={go} single={single} />);
  await user.keyboard('gb');
  expect([go.mock.calls.length, single.mock.calls.length]).toEqual([1, 0]);
  await user.keyboard('b');
  expect([go.mock.calls.length, single.mock.calls.length]).toEqual([1, 1]);
  await user.keyboard('gx');
  await user.keyboard('b');
  expect([go.mock.calls.length, single.mock.calls.length]).toEqual([1, 2]);
});

test('an arrow leaves the focus on a row, where the next Enter belongs', async () => {
  const open = vi.fn();
  const user = userEvent.setup();
  render(
    <>
      <Table open={open} followed={vi.fn()} />
      <div data-testid="row" tabIndex={0} />
    </>,
  );
  const row = screen.getByTestId('row');
  row.focus();
  await user.keyboard('{ArrowDown}');
  expect(document.activeElement).toBe(row);
  screen.getByRole('button').focus();
  await user.keyboard('{ArrowDown}');
  expect(document.activeElement).toBe(document.body);
});
