jest.mock('nanoid', () => ({ nanoid: () => 'fresh' }));

import { api } from './api';
import { ApiError } from './api-error';

/** What is no answer of the server's is told as what it is, and is no reason to give anything up. */

const before = globalThis.fetch;
beforeAll(() => {
  const kept = new Map([['periwinkle:author', 'pilot']]);
  Object.assign(globalThis, {
    localStorage: { getItem: (key: string) => kept.get(key) ?? null, setItem: () => undefined },
  });
});
afterEach(() => {
  globalThis.fetch = before;
});

const PAGE = '<!doctype html><title>Sign in – Port of Merrow</title><form></form>';
const EDIT = { key: 'k', changeId: 'c', label: 'half \ud83d', parts: [] };

test.each([200, 401, 403, 413])('a page with status %i', async status => {
  globalThis.fetch = () => Promise.resolve(new Response(PAGE, { status }));
  const error = await api.edit('quayside', EDIT, []).catch((reason: unknown) => reason);
  expect(error).toBeInstanceOf(ApiError);
  expect((error as ApiError).message).toMatch(/Sign in – Port of Merrow.*Nothing is lost/);
  expect((error as ApiError).passing).toBe(true);
});

test('a label that was cut within a character is sent without its half', async () => {
  const fetching = jest.fn((_: string, __: RequestInit) => Promise.resolve(new Response('[]')));
  globalThis.fetch = fetching as unknown as typeof fetch;
  await api.edit('quayside', EDIT, []);
  expect(fetching.mock.calls[0]![1].headers).toMatchObject({ 'Periwinkle-Label': 'half%20' });
});
