import { afterEach, expect, test, vi } from 'vitest';
import { inWords } from './in-words.ts';
import { DeviceApi, Refused, Stranger, Unreachable } from './api.ts';

afterEach(() => vi.unstubAllGlobals());

function answer(status: number, body: unknown, shelf: string | null) {
  vi.stubGlobal('fetch', async () =>
    Promise.resolve(
      new Response(JSON.stringify(body), { status, headers: shelf ? { 'Yarrowmark-Shelf': shelf } : {} }),
    ),
  );
}

test('joining learns which shelf gave the seat', async () => {
  const api = new DeviceApi(null);
  answer(200, { token: 't' }, 'home');
  expect(await api.join('CODE', 'a browser', 'secret')).toEqual({ token: 't', shelf: 'home' });
  answer(200, { key: 'k', late: false }, 'home');
  expect(await api.deliver('k', 0, {} as never)).toEqual({ key: 'k', late: false });
});

test.each([
  [200, 'away'],
  [401, 'away'],
  [200, null],
  [404, null],
  [500, 'away'],
] as const)('an answer %s of the shelf "%s" is not that of the one that gave the seat', async (status, shelf) => {
  const api = new DeviceApi('t', 'home');
  answer(status, { code: 'no-seat', detail: 'not here' }, shelf);
  await expect(api.seat()).rejects.toThrow(Stranger);
});

test('a refusal of our own shelf is one', async () => {
  const api = new DeviceApi('t', 'home');
  answer(401, { code: 'no-seat', detail: 'Join with a code first.' }, 'home');
  await expect(api.seat()).rejects.toThrow(Refused);
  answer(503, {}, 'home');
  await expect(api.seat()).rejects.toThrow(Unreachable);
  answer(507, { detail: 'The disk with the records is full.' }, 'home');
  const full = await api.seat().catch((error: unknown) => error);
  expect(full).toBeInstanceOf(Unreachable);
  expect(inWords(full)).toBe('The disk with the records is full.');
});
