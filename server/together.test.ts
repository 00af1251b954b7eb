import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { Caller, type Answer } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

/** Edits of several documents at once, among them such as make or remove one: all is stored, or nothing. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const FIELD = 'components/text-field.component.json';
const NEW = 'components/mooring.component.json';
const ICON = 'icons/mooring.svg';
const MOORING = {
  format: 'periwinkle-component/1',
  id: 'mooring',
  title: 'Mooring',
  anatomy: { part: 'root', kind: 'stack' },
};

const caller = new Caller(() => server.url);
const ask = (method: string, path: string, body?: unknown, change = ''): Promise<Answer> =>
  caller.call(method, `/api/systems/quayside${path}`, body === undefined ? undefined : JSON.stringify(body), {
    'Periwinkle-Author': 'ann',
    ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
    ...(change ? { 'Periwinkle-Change': encodeURIComponent(change), 'Periwinkle-Label': change } : {}),
  });

const whole = (value: unknown): PatchOperation[] => [{ op: 'replace', path: '', value }];
const titled = (value: string): PatchOperation[] => [{ op: 'replace', path: '/title', value }];
let count = 0;
const part = (path: string, revision: number, patch: readonly PatchOperation[]) => ({
  path,
  revision,
  patch,
  key: `key${++count}`,
});
const together = (change: string, ...parts: ReturnType<typeof part>[]): Promise<Answer> =>
  ask('POST', '/edits', { parts }, change);
const revision = async (path: string): Promise<number> => {
  const { documents } = (await ask('GET', '')).body as { documents?: { path: string; revision: number }[] };
  return documents!.find(each => each.path === path)?.revision ?? 0;
};
const text = async (path: string): Promise<string> => {
  const response = await fetch(`${server.url}/api/systems/quayside/documents/${path}`);
  return response.ok ? response.text() : String(response.status);
};

test('a document is made with the edit that speaks of it, taken back as one, and brought back to the byte', async () => {
  const order = (await ask('GET', '/documents/system.json')).body['order'] as string[];
  const manifest = await text('system.json');
  const made = await together(
    'Mooring made',
    part(NEW, 0, whole(MOORING)),
    part('system.json', await revision('system.json'), [{ op: 'add', path: '/order/-', value: 'mooring' }]),
  );
  expect(made.status).toBe(200);
  expect(made.body).toMatchObject([{ path: NEW, revision: 1 }, { path: 'system.json' }]);
  const before = await text(NEW);
  expect(JSON.parse(before)).toEqual(MOORING);
  expect((await ask('POST', '/undo')).body).toMatchObject([
    { path: 'system.json' },
    { path: NEW, revision: 2 },
  ]);
  expect([await text(NEW), await text('system.json')]).toEqual(['404', manifest]);
  expect((await ask('POST', '/redo')).status).toBe(200);
  expect(await text(NEW)).toBe(before);
  expect((await ask('GET', '/documents/system.json')).body['order']).toEqual([...order, 'mooring']);
});

test('what dangles half-way may, what dangles in the end may not, and then nothing is stored', async () => {
  const [field, notes] = [FIELD, 'components/notes.component.json'];
  const whatIs = [await text(field), await text(notes)];
  const renamed: PatchOperation[] = [{ op: 'replace', path: '/id', value: 'entry' }];
  const refused = await together('Half a rename', part(field, await revision(field), renamed));
  expect(refused.status).toBe(422);
  expect([await text(field), await text(notes)]).toEqual(whatIs);
  const { documents } = (await ask('GET', '')).body as {
    documents?: {
      path: string;
      revision: number;
      body: { extends?: string; fields?: { component: string }[] } | null;
    }[];
  };
  const followers = documents!.filter(({ body }) => body?.extends === 'text-field');
  const follow: PatchOperation[] = [{ op: 'replace', path: '/extends', value: 'entry' }];
  const trials = documents!.flatMap(({ path, revision: made, body }) => {
    const places = (body?.fields ?? []).flatMap(({ component }, index) =>
      component === 'text-field' ? [`/fields/${index}/component`] : [],
    );
    const renamings = places.map((place): PatchOperation => ({ op: 'replace', path: place, value: 'entry' }));
    return renamings.length > 0 ? [part(path, made, renamings)] : [];
  });
  const manifest = (await ask('GET', '/documents/system.json')).body['order'] as string[];
  const place = `/order/${manifest.indexOf('text-field')}`;
  const parts = [
    part(field, await revision(field), renamed),
    part('system.json', await revision('system.json'), [{ op: 'replace', path: place, value: 'entry' }]),
    ...followers.map(each => part(each.path, each.revision, follow)),
    ...trials,
  ];
  const done = await together('Text field renamed', ...parts);
  expect([done.status, done.body.detail]).toEqual([200, undefined]);
  // Sent again, because the answer was lost, it is stored once.
  expect((await ask('POST', '/edits', { parts }, 'Text field renamed')).body).toEqual(done.body);
  expect((await ask('POST', '/undo')).status).toBe(200);
  expect([await text(field), await text(notes)]).toEqual(whatIs);
});

test('one part that is made on another state holds all of it back, and tells what happened', async () => {
  const [field, icon] = [await revision(FIELD), await revision(ICON)];
  expect((await together('Elsewhere', part(FIELD, field, titled('Elsewhere')))).status).toBe(200);
  const stale = await together('Late', part(ICON, icon, whole('<svg/>')), part(FIELD, field, titled('Late')));
  expect(stale).toMatchObject({
    status: 412,
    body: { since: [{ path: FIELD, patch: titled('Elsewhere') }] },
  });
  expect(await text(ICON)).toBe('404');
  // Two that make the same: the second hears of the first.
  const svg = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 8 8"><path d="M0 0h8"/></svg>';
  expect((await together('Icon', part(ICON, 0, whole(svg)))).status).toBe(200);
  const other = svg.replace('h8', 'h4');
  expect(await together('Icon too', part(ICON, 0, whole(other)))).toMatchObject({
    status: 412,
    body: { since: [{ path: ICON, revision: 1 }] },
  });
  // Who has made just the same has nothing left to make.
  expect((await together('The same icon', part(ICON, 0, whole(svg)))).status).toBe(200);
});

test('a removed document is gone for readers, copies and checks, and its revisions go on', async () => {
  const before = await revision(NEW);
  const order = (await ask('GET', '/documents/system.json')).body['order'] as string[];
  const gone = await together(
    'Mooring removed',
    part(NEW, before, whole(null)),
    part('system.json', await revision('system.json'), [
      { op: 'remove', path: `/order/${order.indexOf('mooring')}` },
    ]),
  );
  expect(gone.status).toBe(200);
  expect([await text(NEW), await revision(NEW)]).toEqual(['404', before + 1]);
  expect(await together('Into nothing', part(NEW, before + 1, titled('x')))).toMatchObject({ status: 404 });
  expect((await together('Made anew', part(NEW, before + 1, whole(MOORING)))).status).toBe(200);
  // The removal can no longer be taken back: another stands there.
  const change = ((await ask('GET', '/changes')).body as unknown as { change: string; label: string }[]).find(
    ({ label }) => label === 'Mooring removed',
  )!.change;
  expect(await ask('POST', '/undo', { change })).toMatchObject({
    status: 409,
    body: { obstacle: { label: 'Made anew' } },
  });
});

test.each<[string, unknown, number]>([
  ['the same document twice', { parts: [part(FIELD, 1, titled('a')), part(FIELD, 1, titled('b'))] }, 400],
  [
    'the same key twice',
    {
      parts: [
        { ...part(FIELD, 1, titled('a')), key: 'k' },
        { ...part('system.json', 1, titled('b')), key: 'k' },
      ],
    },
    400,
  ],
  ['no part', { parts: [] }, 400],
  ['a part without a key', { parts: [{ path: FIELD, revision: 1, patch: titled('a') }] }, 400],
  ['a path that is no document’s', { parts: [part('../x', 0, whole({}))] }, 404],
  ['the manifest removed', { parts: [part('system.json', 1, whole(null))] }, 412],
  ['a text for a number', { parts: [part('icons/pilot.svg', 0, whole(7))] }, 409],
  ['a component that is none', { parts: [part('components/x.component.json', 0, whole({ id: 'x' }))] }, 422],
])('refused: %s', async (_, body, status) => {
  expect((await ask('POST', '/edits', body)).status).toBe(status);
});

test('a system keeps its manifest', async () => {
  const removed = await together('Away', part('system.json', await revision('system.json'), whole(null)));
  expect(removed.status).toBe(422);
});
