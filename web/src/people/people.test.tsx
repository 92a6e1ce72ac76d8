// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { agentWords } from './agent-words.ts';
import { OnceShown } from './OnceShown.tsx';
import { ROLE_OPTIONS, roleWords } from './roles.ts';

afterEach(cleanup);

test('a place is named by the kind of its browser and system, as far as that is told', () => {
  const chromium = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/141.0 Safari/537.36';
  expect(agentWords(chromium)).toBe('a Chromium browser on Linux');
  expect(agentWords('Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) AppleWebKit/605.1 Safari/604.1')).toBe(
    'a WebKit browser on iOS',
  );
  expect(agentWords('Mozilla/5.0 (Android 15; Mobile; rv:142.0) Gecko/142.0 Firefox/142.0')).toBe(
    'a Gecko browser on Android',
  );
  expect(agentWords('curl/8.9')).toBe('curl/8.9');
  expect(agentWords('')).toBe('a program');
  expect(agentWords('x'.repeat(200))).toHaveLength(40);
});

test('every role has words, and its choice says what it may do', () => {
  expect(ROLE_OPTIONS.map((r) => r.label)).toEqual(['owner', 'reviewer', 'reader']);
  expect(ROLE_OPTIONS.every((r) => r.detail.length > 10)).toBe(true);
  expect(roleWords('READER')).toBe('reader');
});

test('a secret says that it is shown once, and until when it is good', () => {
  render(<OnceShown what="Invitation" text="http://lab/welcome#abc" until="2026-12-05T10:00:00Z" />);
  expect(screen.getByRole('status').textContent).toMatch(
    /Invitation\. It is shown this once, and good until 5 Dec 2026/,
  );
  expect(screen.getByText('http://lab/welcome#abc').tagName).toBe('CODE');
});
