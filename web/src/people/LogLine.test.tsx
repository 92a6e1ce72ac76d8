// @vitest-environment jsdom
import { render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { LogLine } from './LogLine.tsx';

vi.mock('@tanstack/react-router', () => ({
  Link: ({ to, children }: { to: string; children: string }) => <a href={to}>{children}</a>,
}));

const one = (of: Partial<Parameters<typeof LogLine>[0]['of']>) =>
  render(
    <LogLine of={{ at: '2026-05-01T10:00:00Z', person: 'wren', subject: 'unit', subjectId: 4, changes: [], ...of }} />,
  ).container.textContent;

test('a line names the thing and leads to it', () => {
  const words = one({
    name: 'Unit 1 of Quenby Folio 14',
    place: '/shelf/models/3',
    changes: [{ field: 'made', to: 'Unit 1' }],
  });
  expect(words).toContain('Unit 1 of Quenby Folio 14 was added');
  expect(screen.getByRole('link').getAttribute('href')).toBe('/shelf/models/3');
});

test('what a change went from and to, and why', () => {
  expect(
    one({
      subject: 'reading',
      name: 'Weir hash on Quenby Folio 14',
      changes: [{ field: 'value', from: '10', to: '12', reason: 'typed wrongly' }],
    }),
  ).toContain('Weir hash on Quenby Folio 14 was changed: value: 10 → 12 (typed wrongly)');
});

test('what is set aside says why, and what is gone is said by its kind', () => {
  expect(one({ subject: 'reading', changes: [{ field: 'set aside', to: 'ventilator was off' }] })).toContain(
    'Reading 4 was set aside: ventilator was off',
  );
});
