// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import type { MouseEvent } from 'react';
import { expect, test } from 'vitest';
import { useSelection } from './use-selection.ts';

const rows = [1, 2, 3, 4, 5];
const click = (target: HTMLElement, keys: Partial<Record<'shiftKey' | 'ctrlKey', boolean>> = {}) =>
  ({
    target,
    shiftKey: false,
    ctrlKey: false,
    metaKey: false,
    preventDefault: () => undefined,
    ...keys,
  }) as unknown as MouseEvent;

test('a click picks one row, Ctrl another, Shift a stretch', () => {
  const cell = document.createElement('td');
  const { result } = renderHook(() => useSelection(rows, (r) => r));
  act(() => result.current.onClick(2)(click(cell)));
  expect(result.current.rows).toEqual([2]);
  act(() => result.current.onClick(4)(click(cell, { ctrlKey: true })));
  expect(result.current.rows).toEqual([2, 4]);
  act(() => result.current.onClick(1)(click(cell, { shiftKey: true })));
  expect([...result.current.rows].sort()).toEqual([1, 2, 3, 4]);
  act(() => result.current.onClick(5)(click(cell)));
  expect(result.current.rows).toEqual([5]);
  act(() => result.current.onClick(5)(click(cell)));
  expect(result.current.rows).toEqual([]);
});

test('links and buttons in a row stay what they are, and what is on another page stays picked', () => {
  const { result, rerender } = renderHook(({ shown }) => useSelection(shown, (r) => r), {
    initialProps: { shown: rows },
  });
  act(() => result.current.onClick(1)(click(document.createElement('a'))));
  expect(result.current.rows).toEqual([]);
  act(() => result.current.toggle(1));
  rerender({ shown: [6, 7] });
  act(() => result.current.toggle(7, true));
  expect(result.current.rows).toEqual([1, 7]);
  act(() => result.current.clear());
  expect(result.current.rows).toEqual([]);
});
