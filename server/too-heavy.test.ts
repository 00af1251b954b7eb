import { readdirSync } from 'node:fs';
import { getPriority } from 'node:os';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { Caller, type Answer } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';
import { forRequest, reading, TooHeavy } from './source/worker/computing';

/** What is asked small and turns out to be large is done all the same, but not where others would have to wait for it. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const caller = new Caller(() => server.url);
const ask = (method: string, path: string, body?: unknown): Promise<Answer> =>
  caller.call(method, path, body === undefined ? undefined : JSON.stringify(body), {
    'Periwinkle-Author': 'ann',
    ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
  });

const LETTERS = 5_000_000;
const replaced = (value: unknown): PatchOperation[] => [{ op: 'replace', path: '', value }];

test('reading counts up to where a small request ends, and never ends a heavy one', async () => {
  const read = (isHeavy: boolean) =>
    forRequest(1, isHeavy, async () => {
      for (let time = 0; time < 20; time++) {
        await Promise.resolve();
        reading(100_000, 'request');
      }
    });
  expect((await read(false)).outcome).toMatchObject({
    status: 'rejected',
    reason: new TooHeavy('request'),
  });
  expect((await read(true)).outcome).toMatchObject({ status: 'fulfilled' });
});

test('a small edit of a large system, a large document, and a step back over a large edit', async () => {
  const documents = {
    'system.json': { format: 'periwinkle-system/1', id: 'large', title: 'Large', prefix: 'l' },
    'guide/large.md': 'x'.repeat(LETTERS),
  };
  expect((await ask('POST', '/api/systems', { documents })).status).toBe(201);
  const edited = await ask('POST', '/api/systems/large/edits', {
    parts: [{ path: 'guide/small.md', revision: 0, key: 'small', patch: replaced('small') }],
  });
  expect(edited).toMatchObject({ status: 200, body: [{ path: 'guide/small.md', revision: 1 }] });
  const whole = await fetch(`${server.url}/api/systems/large/documents/guide/large.md`);
  expect((await whole.text()).length).toBe(LETTERS);
  const emptied = await ask('POST', '/api/systems/large/edits', {
    parts: [{ path: 'guide/large.md', revision: 1, key: 'emptied', patch: replaced('') }],
  });
  expect(emptied.status).toBe(200);
  const undone = await ask('POST', '/api/systems/large/undo', {});
  expect(undone).toMatchObject({ status: 200, body: [{ path: 'guide/large.md', revision: 3 }] });
  const back = await fetch(`${server.url}/api/systems/large/documents/guide/large.md`);
  expect((await back.text()).length).toBe(LETTERS);
});

test('what is heavy gives way to all other threads', () => {
  const priorities = readdirSync('/proc/self/task').map(thread => getPriority(Number(thread)));
  // That of the test and of the light thread is as it was, that of the heavy one is behind.
  expect(new Set(priorities)).toEqual(new Set([getPriority(), 10]));
});

test('small edits of a large system at once are all stored, each once', async () => {
  const all = await Promise.all(
    Array.from({ length: 8 }, (_, index) =>
      ask('POST', '/api/systems/large/edits', {
        parts: [{ path: `guide/n${index}.md`, revision: 0, key: `n${index}`, patch: replaced(`${index}`) }],
      }),
    ),
  );
  expect(all.map(({ status }) => status)).toEqual(all.map(() => 200));
  const { documents } = (await ask('GET', '/api/systems/large')).body as {
    documents?: { path: string; revision: number }[];
  };
  const added = documents!.filter(({ path }) => /^guide\/n\d/.test(path));
  expect(added.map(({ revision }) => revision)).toEqual(all.map(() => 1));
});
