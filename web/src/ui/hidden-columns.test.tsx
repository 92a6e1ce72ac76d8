// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, test } from 'vitest';
import { forgetColumns, hideColumns, useHiddenColumns } from './hidden-columns.ts';
import { nextSorting } from './SortHeader.tsx';

beforeEach(() => {
  localStorage.clear();
  forgetColumns();
});

test('hidden columns are remembered for each list', () => {
  const { result } = renderHook(() => useHiddenColumns('shelf'));
  expect(result.current).toEqual([]);
  act(() => hideColumns('shelf', ['price']));
  expect(result.current).toEqual(['price']);
  forgetColumns();
  expect(renderHook(() => useHiddenColumns('shelf')).result.current).toEqual(['price']);
  expect(renderHook(() => useHiddenColumns('ledger')).result.current).toEqual([]);
});

test.each(['{', '[1]', '{"shelf":7}', 'null'])('what the browser kept may be %s', (text) => {
  localStorage.setItem('yarrowmark.hidden-columns', text);
  expect(renderHook(() => useHiddenColumns('shelf')).result.current).toEqual([]);
});

test('a second click on a heading turns the order round', () => {
  expect(nextSorting({ by: 'a', falling: false }, 'a')).toEqual({ by: 'a', falling: true });
  expect(nextSorting({ by: 'a', falling: true }, 'b')).toEqual({ by: 'b', falling: false });
  expect(nextSorting({ by: 'a', falling: true }, 'b', true)).toEqual({ by: 'b', falling: true });
});
