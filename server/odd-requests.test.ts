import { connect } from 'node:net';
import { Caller, FIELD } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

/** Requests that no library would send, and others that mean something else than they seem to. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const caller = new Caller(() => server.url);
const AT = '/api/systems/quayside';
const JSON_TYPE = { 'Content-Type': 'application/json' };

/** Sends just these lines and this body; gives the first line and the problem of the answer. */
function send(lines: readonly string[], body = ''): Promise<string> {
  const { hostname, port } = new URL(server.url);
  return new Promise((resolve, reject) => {
    const socket = connect(Number(port), hostname);
    let text = '';
    const end = (): void => {
      socket.destroy();
      resolve(`${/^HTTP\/1.1 (\d+)/.exec(text)?.[1]} ${/urn:periwinkle:problem:([\w-]+)/.exec(text)?.[1]}`);
    };
    socket.on('data', data => {
      text += data.toString();
      if (/urn:periwinkle:problem|^HTTP\/1.1 2/.test(text)) end();
    });
    socket.on('close', end).on('error', reject);
    socket.write(`${lines.join('\r\n')}\r\n\r\n${body}`);
  });
}
const own = (): string => new URL(server.url).host;

describe('hosts', () => {
  test.each<[string, (own: string) => string[]]>([
    ['a second one', host => [`GET ${AT} HTTP/1.1`, `Host: ${host}`, 'Host: elsewhere.example']],
    ['one before the path', host => [`GET http://elsewhere.example${AT} HTTP/1.1`, `Host: ${host}`]],
    ['none', () => [`GET ${AT} HTTP/1.0`]],
  ])('%s that is not ours is not answered', async (_, linesFor) => {
    expect(await send(linesFor(own()))).toBe('421 unknown-host');
  });

  test('our own before the path is', async () => {
    expect(await send([`GET http://${own()}/api/systems HTTP/1.1`, `Host: ${own()}`])).toMatch(/^200 /);
  });
});

describe('bodies in crumbs', () => {
  const lines = (): string[] => [
    `POST ${AT}/edits HTTP/1.1`,
    `Host: ${own()}`,
    'Content-Type: application/json',
    'Transfer-Encoding: chunked',
  ];
  const chunked = (piece: string, times: number): string =>
    `${`${piece.length.toString(16)}\r\n${piece}\r\n`.repeat(times)}0\r\n\r\n`;

  test('are refused before all have come', async () => {
    expect(await send(lines(), chunked('[', 300_000))).toBe('400 in-crumbs');
  });

  test('pieces of some length are none', async () => {
    expect(await send(lines(), chunked(' '.repeat(100), 5_000))).toMatch(/^400 (?!in-crumbs)/);
  });
});

test('a system has one name: with a space behind there is none', async () => {
  for (const name of ['quayside%20', 'quayside%00', 'QUAYSIDE', 'quays%C3%ADde', '%20quayside'])
    for (const [method, rest] of [
      ['GET', ''],
      ['GET', '/history'],
      ['POST', '/undo'],
      ['DELETE', ''],
    ] as const)
      expect([name, method, rest, (await caller.call(method, `/api/systems/${name}${rest}`)).status]).toEqual(
        [name, method, rest, 404],
      );
});

test.each([
  ['PUT', FIELD, 'GET, PATCH'],
  ['DELETE', FIELD, 'GET, PATCH'],
  ['PATCH', AT, 'GET, DELETE'],
  ['PUT', '/api/systems', 'GET, POST'],
  ['GET', `${AT}/undo`, 'POST'],
  ['POST', '/api/health', 'GET'],
])('%s %s: 405, with what there is', async (method, path, allowed) => {
  const answer = await fetch(server.url + path, { method });
  expect([answer.status, answer.headers.get('allow')]).toEqual([405, allowed]);
  expect(((await answer.json()) as { detail: string }).detail).toContain(`no ${method}`);
});

describe('a document that is taken away as a whole', () => {
  const TAKEN = [{ op: 'remove', path: '' }];
  const taken = async (path: string, key: string, patch: readonly object[] = TAKEN) => {
    const revision = Number((await caller.revision(`${AT}/documents/${path}`)).replaceAll('"', ''));
    const part = { path, revision, key, patch };
    return caller.call('POST', `${AT}/edits`, JSON.stringify({ parts: [part] }), JSON_TYPE);
  };

  test.each([
    ['gone', TAKEN],
    ['changed-and-gone', [{ op: 'replace', path: '/title', value: 'Before it goes' }, ...TAKEN]],
  ])('is gone, and is back when that is undone: %s', async (key, patch) => {
    const path = 'trials/arrival.trial.json';
    const before = await caller.call('GET', `${AT}/documents/${path}`);
    expect((await taken(path, key, patch)).status).toBe(200);
    expect((await caller.call('GET', `${AT}/documents/${path}`)).status).toBe(404);
    expect((await caller.call('POST', `${AT}/undo`)).status).toBe(200);
    expect((await caller.call('GET', `${AT}/documents/${path}`)).body).toEqual(before.body);
  });

  test('is refused where the system needs it', async () => {
    const answer = await taken('system.json', 'needed');
    expect([answer.status, answer.body.problems]).toEqual([
      422,
      [expect.objectContaining({ code: 'missing-file', file: 'system.json' })],
    ]);
  });
});

describe('what is said plainly', () => {
  const send = (path: string, init: RequestInit = {}): Promise<Response> =>
    fetch(`${server.url}/api/systems${path}`, init);
  const problemOf = async (answer: Response): Promise<string> => {
    const { type, detail } = (await answer.json()) as { type: string; detail: string };
    return `${answer.status} ${type.replace('urn:periwinkle:problem:', '')}: ${detail}`;
  };
  const post = (body: unknown): RequestInit => ({
    method: 'POST',
    headers: JSON_TYPE,
    body: JSON.stringify(body),
  });

  test('half of a character is refused with its place', async () => {
    const patch = [{ op: 'replace', path: '/summary', value: 'A berth \ud83d' }];
    const part = { key: 'half', path: FIELD, revision: 1, patch };
    const answer = await send('/quayside/edits', post({ parts: [part] }));
    expect(answer.status).toBe(422);
    expect(await answer.json()).toMatchObject({
      type: 'urn:periwinkle:problem:lone-surrogate',
      pointer: '/parts/0/patch/0/value',
    });
  });

  test.each(['api', 'assets'])('a system cannot be %s', async id => {
    const answer = await send('/quayside/duplicate', post({ id, title: 'Port of Merrow' }));
    expect(await problemOf(answer)).toMatch(/^422 reserved-id: “\w+” is an address of the application/);
  });

  test('a title may be as long as it may be, in any letters', async () => {
    const title = '⚓'.repeat(200);
    const made = await send('/quayside/duplicate', post({ id: 'long-title', title }));
    expect([made.status, ((await made.json()) as { title: string }).title]).toEqual([201, title]);
    const longer = await send('/quayside/duplicate', post({ id: 'longer-title', title: `${title}⚓` }));
    expect(longer.status).toBe(400);
  });

  test('a system that was removed says that it can be brought back', async () => {
    expect((await send('/long-title', { method: 'DELETE' })).status).toBe(204);
    expect(await problemOf(await send('/long-title'))).toMatch(/^404 removed-system: .* can be brought back/);
    expect((await send('/long-title/restore', { method: 'POST' })).status).toBe(204);
    expect((await send('/long-title')).status).toBe(200);
  });

  test('half a change is no number of changes, and the head of a stream comes alone', async () => {
    expect(await problemOf(await send('/quayside/changes?most=1.5'))).toMatch(/^400 bad-number/);
    const head = await send('/quayside/events', { method: 'HEAD' });
    expect([head.status, head.headers.get('content-type')]).toEqual([
      200,
      'text/event-stream; charset=utf-8',
    ]);
  });
});
