// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import type { Answer, Question } from '../../workloads/types.ts';
import { Asking } from './Asking.tsx';

afterEach(cleanup);

function asked(question: Question) {
  const answer = vi.fn<(answer: Answer) => void>();
  render(<Asking asked={{ question, answer }} />);
  return { answer, user: userEvent.setup() };
}

const LEVEL: Question = {
  title: 'How full is the battery?',
  words: ['This browser does not tell.'],
  fields: [{ key: 'level', label: 'Battery, %' }],
  buttons: [
    { key: 'ok', label: 'That is the level' },
    { key: 'end', label: 'End it' },
  ],
};

test('what is typed goes with the button that is pressed', async () => {
  const { answer, user } = asked(LEVEL);
  await user.type(screen.getByLabelText('Battery, %'), '72');
  await user.click(screen.getByRole('button', { name: 'End it' }));
  expect(answer.mock.calls).toEqual([[{ button: 'end', fields: { level: '72' } }]]);
});

test('Enter in a field is the main answer, once', async () => {
  const { answer, user } = asked(LEVEL);
  await user.type(screen.getByLabelText('Battery, %'), '72{Enter}');
  expect(answer.mock.calls).toEqual([[{ button: 'ok', fields: { level: '72' } }]]);
});

test('a notice only says something', () => {
  asked({ title: 'Waiting for the line', words: ['It goes on by itself.'], buttons: [] });
  expect(screen.getByText('It goes on by itself.')).toBeDefined();
  expect(screen.queryByRole('button')).toBeNull();
});
