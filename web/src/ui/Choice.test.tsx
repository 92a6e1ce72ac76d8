// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, beforeAll, expect, test, vi } from 'vitest';
import { shown } from '../testing/shown.tsx';
import { Choice, Choices, type Option } from './Choice.tsx';

const FEW: Option<string>[] = ['laptops', 'tablets', 'phones'].map((label) => ({ value: label, label }));
const MANY: Option<number>[] = Array.from({ length: 30 }, (_, i) => ({ value: i, label: `test ${i}` }));

beforeAll(() => {
  // What jsdom does not draw, it cannot scroll or measure.
  Element.prototype.scrollIntoView = vi.fn();
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
});
afterEach(cleanup);

function One({ options, onChoose }: { options: Option<string>[]; onChoose: (v: string) => void }) {
  const [value, setValue] = useState(options[0]!.value);
  return (
    <Choice
      name="Class"
      value={value}
      options={options}
      onChoose={(v) => {
        setValue(v);
        onChoose(v);
      }}
    >
      {value}
    </Choice>
  );
}

test('the sentence says what is chosen, and arrows and Enter choose anew', async () => {
  const chosen = vi.fn();
  const user = userEvent.setup();
  shown(<One options={FEW} onChoose={chosen} />);
  const control = screen.getByRole('button', { name: 'Class: laptops' });
  control.focus();
  await user.keyboard('{Enter}');
  expect(screen.getByRole('option', { name: /laptops/ }).getAttribute('aria-selected')).toBe('true');
  await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{ArrowUp}{Enter}');
  expect(chosen.mock.calls).toEqual([['tablets']]);
  expect(screen.queryByRole('listbox')).toBeNull();
  expect(screen.getByRole('button', { name: 'Class: tablets' })).toBe(document.activeElement);
});

test('who walks on before the focus is given back keeps it', async () => {
  const user = userEvent.setup();
  shown(
    <>
      <One options={FEW} onChoose={vi.fn()} />
      <button>Next row</button>
    </>,
  );
  const control = screen.getByRole('button', { name: 'Class: laptops' });
  control.focus();
  await user.keyboard('{Enter}');
  // The key and the walk come before any timer: as on a machine that is behind.
  fireEvent.keyDown(document.activeElement!, { key: 'Escape' });
  screen.getByRole('button', { name: 'Next row' }).focus();
  await new Promise((resolve) => setTimeout(resolve));
  await new Promise((resolve) => setTimeout(resolve));
  expect(document.activeElement?.textContent).toBe('Next row');
});

test('Escape closes, chooses nothing and gives the focus back', async () => {
  const chosen = vi.fn();
  const user = userEvent.setup();
  shown(<One options={FEW} onChoose={chosen} />);
  await user.click(screen.getByRole('button', { name: 'Class: laptops' }));
  await user.keyboard('{ArrowDown}{Escape}');
  expect(chosen).not.toHaveBeenCalled();
  expect(screen.getByRole('button', { name: 'Class: laptops' })).toBe(document.activeElement);
});

test('a long list is narrowed by typing, and says where nothing is left', async () => {
  const chosen = vi.fn();
  const user = userEvent.setup();
  shown(
    <Choice name="Test" value={3} options={MANY} onChoose={chosen}>
      test 3
    </Choice>,
  );
  await user.click(screen.getByRole('button', { name: 'Test: test 3' }));
  await user.keyboard('TEST 17');
  expect(screen.getAllByRole('option')).toHaveLength(1);
  await user.keyboard(' x');
  expect(screen.queryAllByRole('option')).toHaveLength(0);
  screen.getByText('Nothing has these words.');
  await user.keyboard('{Enter}');
  expect(chosen).not.toHaveBeenCalled();
  await user.keyboard('{Backspace}{Backspace}{Enter}');
  expect(chosen.mock.calls).toEqual([[17]]);
});

test('of several any number is chosen while the list stays open', async () => {
  const chosen = vi.fn();
  const user = userEvent.setup();
  shown(
    <Choices name="Classes" values={['phones']} options={FEW} onChoose={chosen}>
      phones
    </Choices>,
  );
  await user.click(screen.getByRole('button', { name: 'Classes: phones' }));
  await user.click(screen.getByRole('option', { name: /laptops/ }));
  await user.click(screen.getByRole('option', { name: /phones/ }));
  expect(chosen.mock.calls).toEqual([[['phones', 'laptops']], [[]]]);
  screen.getByRole('listbox', { name: 'Classes' });
});
