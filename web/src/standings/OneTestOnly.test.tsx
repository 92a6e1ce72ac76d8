// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import type { StandingsSearch } from '../shell/search-params.ts';
import type { Standings } from './question/ask.ts';
import { OneTestOnly } from './OneTestOnly.tsx';

afterEach(cleanup);

const ONE = {
  metrics: [{ id: 1, test: 'Weir hash', suite: 'Yarrow processor', weight: 1 }],
  leftOut: [{ test: 'Ferry', suite: 'Quay', reason: 'only one of those ranked has run it' }],
  offers: [{ key: 'group:STORAGE', name: 'Storage', placed: 7 }],
} as unknown as Standings;

test('a standing that shrank to one test says so large, and leads to those with more', () => {
  const say = vi.fn();
  const { rerender } = render(<OneTestOnly standings={ONE} search={{}} onSay={say} />);
  screen.getByText('By one test only: Weir hash');
  fireEvent.click(screen.getByText('Storage (7)'));
  expect(say).toHaveBeenCalledWith(expect.objectContaining({ group: 'STORAGE' }));
  const silent = (standings: Standings, search: StandingsSearch) => {
    rerender(<OneTestOnly standings={standings} search={search} onSay={say} />);
    expect(screen.queryByRole('status')).toBeNull();
  };
  silent(ONE, { metric: 1 });
  silent({ ...ONE, leftOut: [] }, {});
  silent({ ...ONE, metrics: [...ONE.metrics, ...ONE.metrics] }, {});
});
