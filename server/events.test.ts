import { QUOTAS } from '@periwinkle/core/json/quotas';
import { Caller, FIELD } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

/** Listeners hear of every edit once and in order, whatever its length, and nobody is cut off for an edit that is long. */

let server: TestServer;
const ends: AbortController[] = [];
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(async () => {
  ends.forEach(end => end.abort());
  await server?.close();
});

const caller = new Caller(() => server.url);
const AT = '/api/systems/quayside';

const lastEdit = async (): Promise<number> => Number((await caller.call('GET', AT)).body['lastEdit']);

let written = 0;
/** Stores pages of so many letters, each an edit of its own. */
async function write(letters: number, pages = 1): Promise<void> {
  const parts = Array.from({ length: pages }, () => ({
    path: `guide/long-${++written}.md`,
    revision: 0,
    key: `long-${written}`,
    patch: [{ op: 'replace', path: '', value: 'x'.repeat(letters) }],
  }));
  const { status } = await caller.call('POST', `${AT}/edits`, JSON.stringify({ parts }), {
    'Content-Type': 'application/json',
  });
  expect(status).toBe(200);
}

interface Heard {
  readonly id: number;
  readonly event: string;
  readonly data: string;
}

/** Listens on one connection until so many were told. */
async function listen(after: number): Promise<(count: number) => Promise<Heard[]>> {
  const end = new AbortController();
  ends.push(end);
  const stream = await fetch(`${server.url}${AT}/events?after=${after}`, { signal: end.signal });
  expect(stream.headers.get('content-type')).toContain('text/event-stream');
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  return async count => {
    for (;;) {
      const heard = [...text.matchAll(/^id: (\d+)\nevent: (\w+)\ndata: (.*)\n\n/gm)];
      if (heard.length >= count)
        return heard.map(([, id, event, data]) => ({ id: Number(id), event: event!, data: data! }));
      const { value, done } = await reader.read();
      if (done) throw new Error(`Cut off after ${heard.length} of ${count}.`);
      text += value;
    }
  };
}

test('each edit is told, from where one left off', async () => {
  const heard = await listen(await lastEdit());
  await caller.patch(FIELD, [{ op: 'replace', path: '/summary', value: 'Told.' }]);
  const [{ event, data }] = (await heard(1)) as [Heard];
  expect(event).toBe('edit');
  expect(JSON.parse(data)).toMatchObject({ patch: [{ op: 'replace', path: '/summary', value: 'Told.' }] });
});

test('of an edit that is too long it is told that it is there; what comes after is told as ever', async () => {
  const before = await lastEdit();
  const heard = await listen(before);
  await write(QUOTAS.documentLetters - 1_000);
  await write(10);
  const told = await heard(2);
  expect(told.map(({ id, event }) => [id, event])).toEqual([
    [before + 1, 'more'],
    [before + 2, 'edit'],
  ]);
  expect(JSON.parse(told[0]!.data)).toEqual({ after: before });
  const { body } = await caller.call('GET', `${AT}/edits?after=${before}`);
  expect((body as unknown as { id: number }[])[0]!.id).toBe(before + 1);
  // Whoever comes later hears the same.
  expect(await (await listen(before))(2)).toEqual(told);
}, 60_000);

test('who missed much hears all of it on one connection', async () => {
  const before = await lastEdit();
  const count = 250;
  expect(count * QUOTAS.eventLetters).toBeGreaterThan(2 * QUOTAS.lettersTold);
  for (let each = 0; each < count; each += 50) await write(QUOTAS.eventLetters - 500, 50);
  const told = await (await listen(before))(count);
  expect(told.map(({ id }) => id)).toEqual(Array.from({ length: count }, (_, place) => before + 1 + place));
  expect(new Set(told.map(({ event }) => event))).toEqual(new Set(['edit']));
}, 60_000);

test('who knows an edit that is another by now is told to read the system anew', async () => {
  const { body } = await caller.call('GET', AT);
  const [last, key] = [Number(body['lastEdit']), String(body['lastKey'])];
  const after = (query: string) => caller.call('GET', `${AT}/edits?after=${query}`);
  expect((await after(`${last}&key=${encodeURIComponent(key)}`)).status).toBe(200);
  for (const query of [`${last}&key=another`, `${last + 5}&key=${encodeURIComponent(key)}`]) {
    const { status, body: problem } = await after(query);
    expect([status, problem['type']]).toEqual([410, 'urn:periwinkle:problem:other-state']);
    const stream = await fetch(`${server.url}${AT}/events?after=${query}`);
    expect(await stream.text()).toContain('event: anew');
  }
}, 60_000);
