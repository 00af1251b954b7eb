import { inArray, like } from 'drizzle-orm';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { systems } from './source/storage/schema';
import { Caller, FIELD, RAW } from './test/caller';
import { demoDocuments, startTestServer, type TestServer } from './test/test-server';

/** What is too much, too deep or not meant is refused with its reason, and the server goes on. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const caller = new Caller(() => server.url);
const PATCH = { 'Content-Type': 'application/json-patch+json' };
const say = (value: string): PatchOperation[] => [{ op: 'replace', path: '/summary', value }];

describe('patches', () => {
  const doubling: PatchOperation[] = Array.from({ length: 60 }, (_, place) => ({
    op: 'copy',
    from: '/rules',
    path: `/rules/0/set/copy${place}`,
  }));
  test.each<[string, PatchOperation[], RegExp]>([
    ['the root moved into itself', [{ op: 'move', from: '', path: '/rules/0' }], /into itself/],
    ['a document doubled with each operation', doubling, /would be copied/],
    ['a member called constructor', [{ op: 'add', path: '/guide/constructor', value: 'x' }], /as a key/],
    ['a member moved to prototype', [{ op: 'move', from: '/summary', path: '/guide/prototype' }], /as a key/],
  ])('%s is refused, and the document stays as it is', async (_, operations, reason) => {
    const before = await caller.call('GET', FIELD);
    const answer = await caller.patch(FIELD, operations);
    expect([answer.status, answer.body['detail']]).toEqual([409, expect.stringMatching(reason)]);
    expect(await caller.call('GET', FIELD)).toEqual(before);
  });

  test('more operations than a patch may have are refused before any is done', async () => {
    const many = Array.from({ length: QUOTAS.operations + 1 }, () => say('x')[0]!);
    const answer = await caller.patch(FIELD, many);
    expect([answer.status, answer.body['detail']]).toEqual([400, expect.stringContaining('5000')]);
  });

  test('of many problems some are told, and the others counted', async () => {
    const rules = Array.from({ length: QUOTAS.problemsTold + 50 }, (_, index) => ({
      id: `wrong-${index}`,
      when: { nothing: 'at-all' },
      set: {},
    }));
    const answer = await caller.patch(
      FIELD,
      rules.map(value => ({ op: 'add', path: '/rules/-', value })),
    );
    expect(answer.status).toBe(422);
    expect(answer.body.problems).toHaveLength(QUOTAS.problemsTold);
    expect(answer.body['more']).toBe(50);
  });

  test('brackets within brackets are refused at once', async () => {
    const answer = await caller.call('PATCH', FIELD, '['.repeat(8_000_000), {
      ...PATCH,
      'If-Match': await caller.revision(FIELD),
    });
    expect([answer.status, answer.body['detail']]).toEqual([400, expect.stringContaining('64 levels')]);
  });
});

describe('keys of edits', () => {
  test.each([
    ['more letters than a key may have', 'k'.repeat(65)],
    ['a space within', 'one two'],
  ])('%s: refused', async (_, key) => {
    const answer = await caller.patch(FIELD, say('Keyed.'), { 'Idempotency-Key': key });
    expect([answer.status, answer.body['detail']]).toEqual([400, expect.stringContaining('Idempotency-Key')]);
  });

  test('keys that agree in 64 letters, or but for case or padding, are keys of their own', async () => {
    const long = 'k'.repeat(63);
    for (const [place, key] of [`${long}a`, `${long}b`, 'Case', 'case'].entries()) {
      const answer = await caller.patch(FIELD, say(`Keyed ${place}.`), { 'Idempotency-Key': key });
      expect([key, answer.status]).toEqual([key, 200]);
      expect((await caller.call('GET', FIELD)).body['summary']).toBe(`Keyed ${place}.`);
    }
    const padded = JSON.stringify({
      parts: [
        {
          path: 'components/text-field.component.json',
          revision: Number((await caller.revision(FIELD)).slice(1, -1)),
          patch: say('x'),
          key: 'case ',
        },
      ],
    });
    const answer = await caller.call('POST', '/api/systems/quayside/edits', padded, {
      'Content-Type': 'application/json',
    });
    expect(answer.status).toBe(400);
  });

  test('a key that names another edit is told, in the same document and in another', async () => {
    const headers = { 'Idempotency-Key': 'used-once' };
    expect((await caller.patch(FIELD, say('First.'), headers)).status).toBe(200);
    expect((await caller.patch(FIELD, say('First.'), headers)).status).toBe(200);
    expect((await caller.patch(FIELD, say('Second.'), headers)).status).toBe(422);
    const other = [
      { op: 'replace', path: '/raw/line/hair/$value', value: { value: 2, unit: 'px' } },
    ] as const;
    const answer = await caller.patch(RAW, other, headers);
    expect([answer.status, answer.body['type']]).toEqual([422, 'urn:periwinkle:problem:key-reused']);
    expect((await caller.call('GET', FIELD)).body['summary']).toBe('First.');
  });
});

describe('what is asked for', () => {
  test.each([
    ['edits?after=Infinity'],
    ['edits?after=-1'],
    ['edits?after=1.5'],
    ['edits?after=1&after=2'],
    ['changes?most=1.5'],
    ['changes?before=x'],
    ['events?after=x'],
  ])('%s: 400 with the reason', async address => {
    const answer = await caller.call('GET', `/api/systems/quayside/${address}`);
    expect([answer.status, answer.type, answer.body['detail']]).toEqual([
      400,
      expect.stringContaining('application/problem+json'),
      expect.stringContaining('whole number'),
    ]);
  });

  test('a title with more letters than the shelf holds is told where it stands', async () => {
    const documents = Object.fromEntries(demoDocuments());
    documents['system.json'] = {
      ...(documents['system.json'] as object),
      id: 'long',
      title: 'x'.repeat(QUOTAS.titleLetters + 1),
    };
    const answer = await caller.call('POST', '/api/systems', JSON.stringify({ documents }), {
      'Content-Type': 'application/json',
    });
    expect([answer.status, answer.body.problems?.[0]?.pointer]).toEqual([422, '/title']);
  });

  test('a label and an author with more letters than they may have are told', async () => {
    for (const [name, most] of [
      ['Periwinkle-Label', QUOTAS.titleLetters],
      ['Periwinkle-Author', QUOTAS.nameLetters],
    ] as const) {
      const answer = await caller.patch(FIELD, say('x'), {
        [name]: encodeURIComponent('é'.repeat(most + 1)),
      });
      expect([answer.status, answer.body['detail']]).toEqual([400, expect.stringContaining(String(most))]);
    }
  });
});

test('a full shelf takes no further system, and none back, until one is taken off it', async () => {
  const { db } = server.database;
  const now = new Date();
  const row = { title: 'Stands here', createdAt: now, changedAt: now, removedAt: null };
  const rows = Array.from({ length: QUOTAS.systems - 1 }, (_, index) => ({ ...row, id: `stands-${index}` }));
  await db.insert(systems).values([...rows, { ...row, id: 'put-away', removedAt: now }]);
  const json = { 'Content-Type': 'application/json' };
  const documents = {
    'system.json': { format: 'periwinkle-system/1', id: 'one-more', title: 'One more', prefix: 'om' },
  };
  const create = () => caller.call('POST', '/api/systems', JSON.stringify({ documents }), json);
  const restore = (id: string) => caller.call('POST', `/api/systems/${id}/restore`);
  const copy = JSON.stringify({ id: 'copy', title: 'Copy' });
  const duplicate = () => caller.call('POST', '/api/systems/quayside/duplicate', copy, json);
  for (const answer of [await create(), await duplicate(), await restore('put-away')])
    expect([answer.status, answer.body['type'], answer.body['detail']]).toEqual([
      409,
      'urn:periwinkle:problem:too-many-systems',
      expect.stringContaining(String(QUOTAS.systems)),
    ]);
  // What is on the shelf anyway needs no room.
  expect((await restore('stands-0')).status).toBe(204);
  await caller.call('DELETE', '/api/systems/stands-0');
  expect((await create()).status).toBe(201);
  expect((await restore('put-away')).status).toBe(409);
  await db.delete(systems).where(like(systems.id, 'stands-%'));
  await db.delete(systems).where(inArray(systems.id, ['put-away', 'one-more']));
});

describe('answers', () => {
  test('what was stored since is told in pieces that are not too many letters', async () => {
    const first = await caller.revision(FIELD);
    const { lastEdit } = (await caller.call('GET', '/api/systems/quayside')).body as unknown as {
      lastEdit: number;
    };
    // Each is a good part of what one answer may tell.
    const text = 'x'.repeat(QUOTAS.lettersTold / 3);
    for (let index = 0; index < 5; index++)
      expect((await caller.patch(FIELD, say(`${index} ${text}`))).status).toBe(200);
    const stale = await caller.patch(FIELD, say('Late.'), { 'If-Match': first });
    expect(stale.status).toBe(412);
    const since = stale.body['since'] as { id: number }[];
    expect(since.map(({ id }) => id)).toEqual([lastEdit + 1, lastEdit + 2]);
    const told: number[] = [];
    for (;;) {
      const { body } = await caller.call(
        'GET',
        `/api/systems/quayside/edits?after=${told.at(-1) ?? lastEdit}`,
      );
      const page = body as unknown as { id: number }[];
      if (page.length === 0) break;
      expect(page.length).toBeLessThanOrEqual(2);
      told.push(...page.map(({ id }) => id));
    }
    expect(told).toEqual([1, 2, 3, 4, 5].map(index => lastEdit + index));
  });
});
