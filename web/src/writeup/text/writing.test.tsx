// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { AccessContext, type Access } from '../../access/access-context.ts';
import type { Piece } from '../question/questions.ts';

interface Sent {
  revision: number;
  body: { text: string };
}
type Answered = { data?: unknown; error?: unknown; response: Response };
const server = vi.hoisted(() => ({
  get: (): unknown => undefined,
  put: (_sent: unknown): unknown => undefined,
  asked: [] as string[],
}));
vi.mock('../../api/client.ts', async (original) => ({
  ...(await original<object>()),
  api: {
    GET: () => Promise.resolve(server.get()),
    PUT: (_path: string, { body }: { body: unknown }) => Promise.resolve(server.put(body)),
    POST: (path: string) => {
      server.asked.push(`POST ${path}`);
      return Promise.resolve({ data: {}, response: new Response() });
    },
    DELETE: (path: string) => {
      server.asked.push(`DELETE ${path}`);
      return Promise.resolve({ data: {}, response: new Response() });
    },
  },
}));
const { useWriting } = await import('./writing.ts');

const row = (text: string, revision: number, changedBy = 'wren') => ({
  id: 7,
  kind: 'TEXT',
  body: { text },
  revision,
  changedBy,
  changedAt: '2026-11-28T04:00:00Z',
});
const right = (data: unknown): Answered => ({ data, response: new Response(null, { status: 200 }) });
const wrong = (status: number, error: unknown): Answered => ({ error, response: new Response(null, { status }) });
let stored = row('before', 1);
let sent: Sent[] = [];
const keeps = ({ body, revision }: Sent) => {
  stored = row(body.text, revision + 1);
  return right(stored);
};
let answer: (sent: Sent) => Answered = keeps;

beforeEach(() => {
  stored = row('before', 1);
  sent = [];
  answer = keeps;
  server.asked = [];
  server.get = () => right({ writeUp: { id: 1, title: 'T', about: [] }, revision: 1, pieces: [stored], editions: [] });
  server.put = (body) => {
    sent.push(body as Sent);
    return answer(body as Sent);
  };
});

let person = 0;
let who: Access;
beforeEach(() => {
  who = { state: 'SIGNED_IN', lab: 'Saltmarsh', shelf: 'shelf-a', person: `wren ${person++}`, role: 'REVIEWER' };
});

/** A visit of the page; a second one is what comes after a reload, a sign-in or a restart. */
async function visit(as: Access = who) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const { result, unmount } = renderHook(() => useWriting(1), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <AccessContext value={as}>
        <QueryClientProvider client={client}>{children}</QueryClientProvider>
      </AccessContext>
    ),
  });
  await waitFor(() => expect(result.current.pieces.length + result.current.left.length).toBeGreaterThan(0));
  return { result, unmount };
}

async function writing() {
  return (await visit()).result;
}
const textOf = (piece: Piece | undefined) => (piece?.body as { text: string } | undefined)?.text;

describe('what is typed', { timeout: 60_000 }, () => {
  it('stands there at once and is sent once nobody types any more', async () => {
    const result = await writing();
    const piece = result.current.pieces[0]!;
    act(() => {
      result.current.type(piece, { text: 'a' });
      result.current.type(piece, { text: 'ab' });
    });
    expect(textOf(result.current.pieces[0])).toBe('ab');
    // On a slow machine the pause may be over already.
    expect(['typing', 'saving']).toContain(result.current.saving);
    await waitFor(() => expect(result.current.saving).toBe('saved'), { timeout: 20_000 });
    expect(sent).toEqual([{ revision: 1, body: { text: 'ab' } }]);
  });

  it('is kept while the server is away, and sent again', async () => {
    const result = await writing();
    answer = () => wrong(503, { code: 'records-away', detail: 'Away.' });
    act(() => result.current.type(result.current.pieces[0]!, { text: 'not lost' }));
    await waitFor(() => expect(result.current.stateOf(7)).toBe('failed'), { timeout: 20_000 });
    expect(textOf(result.current.pieces[0])).toBe('not lost');
    answer = keeps;
    await waitFor(() => expect(result.current.saving).toBe('saved'), { timeout: 20_000 });
    expect(sent.at(-1)!.body.text).toBe('not lost');
  });

  it('is asked about where somebody else was quicker, and stays theirs or mine', async () => {
    const result = await writing();
    answer = () => wrong(409, { code: 'piece-changed', detail: 'Changed.', now: row('theirs', 5, 'reed') });
    act(() => result.current.type(result.current.pieces[0]!, { text: 'mine' }));
    await waitFor(() => expect(result.current.stateOf(7)).toBe('conflict'), { timeout: 20_000 });
    expect(result.current.theirsOf(7)!.changedBy).toBe('reed');
    expect(textOf(result.current.pieces[0])).toBe('mine');
    answer = keeps;
    act(() => result.current.settle(7, 'mine'));
    await waitFor(() => expect(result.current.saving).toBe('saved'), { timeout: 20_000 });
    expect(sent.at(-1)).toEqual({ revision: 5, body: { text: 'mine' } });
  });

  it('is undone by what it did, the last first', async () => {
    const result = await writing();
    await act(() => result.current.remove(7, 'text'));
    expect(result.current.last).toBe('Took out a text');
    await act(() => result.current.undo());
    expect(server.asked).toEqual([
      'DELETE /api/write-ups/{id}/pieces/{piece}',
      'POST /api/write-ups/{id}/pieces/{piece}/restore',
    ]);
    expect(result.current.last).toBeUndefined();
  });
});

describe('what could not be stored', { timeout: 60_000 }, () => {
  const away = () => wrong(503, { code: 'records-away', detail: 'Away.' });

  it('is there after a restart, and goes on to the server by itself', async () => {
    const first = await visit();
    answer = away;
    act(() => first.result.current.type(first.result.current.pieces[0]!, { text: 'three paragraphs' }));
    await waitFor(() => expect(first.result.current.stateOf(7)).toBe('failed'), { timeout: 20_000 });
    first.unmount();
    answer = keeps;
    const again = await visit();
    await waitFor(() => expect(again.result.current.saving).toBe('saved'), { timeout: 20_000 });
    await waitFor(() => expect(sent.at(-1)).toEqual({ revision: 1, body: { text: 'three paragraphs' } }));
    expect(again.result.current.backFrom).toBeDefined();
    expect(textOf(again.result.current.pieces[0])).toBe('three paragraphs');
  });

  it('is asked about where somebody else changed the piece meanwhile', async () => {
    const first = await visit();
    answer = away;
    act(() => first.result.current.type(first.result.current.pieces[0]!, { text: 'mine' }));
    await waitFor(() => expect(first.result.current.stateOf(7)).toBe('failed'), { timeout: 20_000 });
    first.unmount();
    stored = row('theirs', 4, 'reed');
    answer = () => wrong(409, { code: 'piece-changed', detail: 'Changed.', now: stored });
    const again = await visit();
    await waitFor(() => expect(again.result.current.stateOf(7)).toBe('conflict'));
    expect(again.result.current.theirsOf(7)!.changedBy).toBe('reed');
    expect(textOf(again.result.current.pieces[0])).toBe('mine');
    expect(sent.at(-1)!.revision, 'nothing is sent as if it knew what somebody else wrote').toBe(1);
    await expect(again.result.current.stored(), 'and nothing is published').rejects.toThrow('Someone else changed');
    act(() => again.result.current.settle(7, 'theirs'));
    await waitFor(() => expect(textOf(again.result.current.pieces[0])).toBe('theirs'));
    again.unmount();
    const third = await visit();
    expect(third.result.current.stateOf(7)).toBe('saved');
  });

  it('is offered where the piece is no more, and put in as a new one', async () => {
    const first = await visit();
    answer = away;
    act(() => first.result.current.type(first.result.current.pieces[0]!, { text: 'of a piece that went' }));
    await waitFor(() => expect(first.result.current.stateOf(7)).toBe('failed'), { timeout: 20_000 });
    first.unmount();
    server.get = () => right({ writeUp: { id: 1, title: 'T', about: [] }, revision: 2, pieces: [], editions: [] });
    const again = await visit();
    expect(again.result.current.left[0]!.body).toEqual({ text: 'of a piece that went' });
    await act(() => again.result.current.settleLeft(again.result.current.left[0]!, 'insert'));
    expect(server.asked.at(-1)).toBe('POST /api/write-ups/{id}/pieces');
    expect(again.result.current.left).toEqual([]);
  });

  it('is shown to nobody else, and not on another shelf at the address', async () => {
    const first = await visit();
    answer = away;
    act(() => first.result.current.type(first.result.current.pieces[0]!, { text: 'private' }));
    await waitFor(() => expect(first.result.current.stateOf(7)).toBe('failed'), { timeout: 20_000 });
    first.unmount();
    answer = keeps;
    const before = sent.length;
    for (const other of [
      { ...who, person: 'reed' },
      { ...who, shelf: 'shelf-b' },
    ]) {
      const visited = await visit(other);
      expect(textOf(visited.result.current.pieces[0])).toBe('before');
      expect(visited.result.current.backFrom).toBeUndefined();
      visited.unmount();
    }
    expect(sent.length).toBe(before);
  });

  it('is saved with the piece before the piece is taken out, so that undo brings it back', async () => {
    const { result } = await visit();
    act(() => result.current.type(result.current.pieces[0]!, { text: 'just typed' }));
    await act(() => result.current.remove(7, 'text'));
    expect(sent.at(-1)!.body.text).toBe('just typed');
    expect(server.asked.at(-1)).toBe('DELETE /api/write-ups/{id}/pieces/{piece}');
  });
});
