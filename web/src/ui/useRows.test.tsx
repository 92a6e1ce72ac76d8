// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { rememberRow, rowToReturnTo } from './return-row.ts';
import { useRows } from './useRows.ts';

function List({ rows }: { rows: readonly number[] }) {
  const { propsOf } = useRows(rows, (r) => r, []);
  return (
    <ul>
      {rows.map((r) => (
        <li key={r} {...propsOf(r)}>
          <a href={`#${r}`}>row {r}</a>
        </li>
      ))}
    </ul>
  );
}

const at = (key: string) => window.history.replaceState({ __TSR_key: key }, '');
Element.prototype.scrollIntoView = () => undefined;
beforeEach(() => at(`entry ${Math.random()}`));
afterEach(cleanup);

test('a list that Back leads to has the focus on the row that was left, also where it comes later', () => {
  const first = render(<List rows={[1, 2, 3]} />);
  fireEvent.focus(screen.getByText('row 2'));
  first.unmount();
  const again = render(<List rows={[]} />);
  expect(document.activeElement).toBe(document.body);
  again.rerender(<List rows={[1, 2, 3]} />);
  expect(document.activeElement?.textContent).toBe('row 2');
});

test('a list that is opened anew begins at its top', () => {
  const first = render(<List rows={[1, 2, 3]} />);
  fireEvent.focus(screen.getByText('row 3'));
  first.unmount();
  at('another entry');
  render(<List rows={[1, 2, 3]} />);
  expect(document.activeElement).toBe(document.body);
  expect(screen.getByText('row 1').parentElement!.tabIndex).toBe(0);
});

test('only so many entries are remembered', () => {
  at('the first');
  rememberRow(7);
  for (let i = 0; i < 300; i++) {
    at(`number ${i}`);
    rememberRow(i);
  }
  expect(rowToReturnTo()).toBe(299);
  at('the first');
  expect(rowToReturnTo()).toBeNull();
});
