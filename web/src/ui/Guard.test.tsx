// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { Guard } from './Guard.tsx';

afterEach(cleanup);

function Odd({ fails }: { fails: boolean }) {
  if (fails) throw new Error('no question in it');
  return <p>a figure</p>;
}

test('what cannot be shown leaves what stands around it alone, and is tried again once it is changed', () => {
  const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined);
  const out = vi.fn();
  const page = (fails: boolean) => (
    <>
      <p>before</p>
      <Guard of={{ fails }} what="Piece 2" action={<button onClick={out}>Take it out</button>}>
        <Odd fails={fails} />
      </Guard>
      <p>after</p>
    </>
  );
  const { rerender } = render(page(true));
  expect(screen.getByRole('alert').textContent).toContain('Piece 2 cannot be shown: no question in it');
  screen.getByText('before');
  screen.getByText('after');
  fireEvent.click(screen.getByText('Take it out'));
  expect(out).toHaveBeenCalled();
  rerender(page(false));
  screen.getByText('a figure');
  expect(screen.queryByRole('alert')).toBeNull();
  quiet.mockRestore();
});
