import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { Caller, FIELD, type Answer } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

/** Edits made on earlier states are placed by the server, so that many may write at once; those that meet something are not. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const caller = new Caller(() => server.url);
const PATH = 'components/text-field.component.json';
interface Rule {
  readonly id: string;
  readonly note?: string;
}

let count = 0;
const part = (revision: number, patch: readonly PatchOperation[], path = PATH) => ({
  path,
  revision,
  patch,
  key: `placed-${++count}`,
});
const send = (...parts: readonly ReturnType<typeof part>[]): Promise<Answer> =>
  caller.call('POST', '/api/systems/quayside/edits', JSON.stringify({ parts }), {
    'Content-Type': 'application/json',
  });
const revision = async (): Promise<number> => Number((await caller.revision(FIELD)).slice(1, -1));
const rules = async (): Promise<Rule[]> => (await caller.call('GET', FIELD)).body['rules'] as Rule[];
const note = (place: number, value: string): PatchOperation => ({
  op: 'add',
  path: `/rules/${place}/note`,
  value,
});
const first = (id: string): PatchOperation => ({
  op: 'add',
  path: '/rules/0',
  value: { id, when: {}, set: {} },
});

test('an edit goes where it was meant, however many rules have come before it since', async () => {
  const made = await revision();
  const { id } = (await rules())[2]!;
  for (const [place, name] of ['new-a', 'new-b'].entries())
    expect((await send(part(made + place, [first(name)]))).status).toBe(200);
  const mine = part(made, [note(2, 'Meant for the third.')]);
  const answer = await send(mine);
  expect(answer).toMatchObject({
    status: 200,
    body: [{ revision: made + 3, patch: [note(4, 'Meant for the third.')], editKey: mine.key }],
  });
  const now = await rules();
  expect(now.filter(each => each.note === 'Meant for the third.').map(each => each.id)).toEqual([id]);
  // Sent again, because the answer was lost, it is the same; under its key nothing else can be sent.
  expect(await send(mine)).toEqual(answer);
  expect((await send({ ...mine, patch: [note(2, 'Another.')] })).status).toBe(422);
  // Taken back it is gone from there, and nothing else is.
  const undone = await caller.call(
    'POST',
    '/api/systems/quayside/undo',
    JSON.stringify({ change: mine.key }),
    {
      'Content-Type': 'application/json',
    },
  );
  expect(undone.status).toBe(200);
  expect(await rules()).toEqual(
    now.map(({ note: said, ...rule }) =>
      said === 'Meant for the third.' ? rule : { ...rule, ...(said === undefined ? {} : { note: said }) },
    ),
  );
});

test('one that meets what was stored since is not stored, nor is what was sent with it', async () => {
  const made = await revision();
  expect((await send(part(made, [note(0, 'Theirs.')]))).status).toBe(200);
  const icon = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 8 8"><path d="M0 0h8"/></svg>';
  const other = part(0, [{ op: 'replace', path: '', value: icon }], 'icons/placed.svg');
  const answer = await send(other, part(made, [note(0, 'Mine.')]));
  expect(answer).toMatchObject({
    status: 412,
    body: { revision: made + 1, since: [{ revision: made + 1 }] },
  });
  expect((await rules())[0]!.note).toBe('Theirs.');
  expect((await caller.call('GET', '/api/systems/quayside/documents/icons/placed.svg')).status).toBe(404);
});

test.each([
  ['a revision that is yet to come', 5, 412],
  ['one so long ago that nobody knows it', -100_000, 412],
])('%s: it is not placed', async (_, off, status) => {
  const made = Math.max(0, (await revision()) + off);
  expect((await send(part(made, [note(0, 'x')]))).status).toBe(status);
});

test('whoever names a revision by If-Match has it, or nothing', async () => {
  const before = await caller.revision(FIELD);
  expect((await caller.patch(FIELD, [first('new-c')])).status).toBe(200);
  expect((await caller.patch(FIELD, [note(0, 'x')], { 'If-Match': before })).status).toBe(412);
});

test('a large edit is placed like a small one', async () => {
  const made = await revision();
  expect((await send(part(made, [first('new-d')]))).status).toBe(200);
  // So long that it goes to the database in another way.
  const text = 'A "long" ‘summary’ of \\ % _ \u0000 \n\r\t \' ` ; -- 🛟 é e\u0301 漢字 '.repeat(4000);
  expect((await send(part(made, [{ op: 'replace', path: '/summary', value: text }]))).status).toBe(200);
  const { body } = await caller.call('GET', FIELD);
  expect([body['summary'], (body['rules'] as Rule[])[0]!.id]).toEqual([text, 'new-d']);
});

test('fifty who write one document at once, through two servers, are all stored, each once', async () => {
  const urls = [server.url, await server.another()];
  const made = await revision();
  const edits = Array.from({ length: 50 }, (_, index) => part(made, [first(`many-${index}`)]));
  const answers = await Promise.all(
    edits.map((edit, index) =>
      fetch(`${urls[index % 2]}/api/systems/quayside/edits`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ parts: [edit] }),
      }),
    ),
  );
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
  const stored = (await rules()).map(({ id }) => id).filter(id => id.startsWith('many-'));
  expect(stored.toSorted()).toEqual(edits.map((_, index) => `many-${index}`).toSorted());
  expect(await revision()).toBe(made + 50);
});
