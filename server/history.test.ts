import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { and, eq } from 'drizzle-orm';
import { inTransaction, Overtaken } from './source/storage/database';
import { writeEdits } from './source/worker/writing';
import { documents } from './source/storage/schema';
import { Caller, type Answer } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

/** Steps through the history: each person's own, however others' edits lie in between. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const FIELD = 'components/text-field.component.json';
const RAW = 'tokens/raw.tokens.json';

const caller = new Caller(() => server.url);

class Person {
  constructor(readonly name: string) {}

  async ask(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    return caller.call(
      method,
      `/api/systems/quayside${path}`,
      body === undefined ? undefined : JSON.stringify(body),
      {
        'Periwinkle-Author': this.name,
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...headers,
      },
    );
  }

  async edit(
    path: string,
    label: string,
    patch: readonly PatchOperation[],
    change?: string,
  ): Promise<Answer> {
    const etag = (await fetch(`${server.url}/api/systems/quayside/documents/${path}`)).headers.get('etag')!;
    return this.ask('PATCH', `/documents/${path}`, patch, {
      'Content-Type': 'application/json-patch+json',
      'If-Match': etag,
      'Periwinkle-Label': encodeURIComponent(label),
      ...(change === undefined ? {} : { 'Periwinkle-Change': change }),
    });
  }

  step = (direction: 'undo' | 'redo', change?: string): Promise<Answer> =>
    this.ask('POST', `/${direction}`, change === undefined ? undefined : { change });

  async ends(): Promise<[string | undefined, string | undefined]> {
    const { undo, redo } = (await this.ask('GET', '/history')).body as Record<
      string,
      { label: string } | null
    >;
    return [undo?.label, redo?.label];
  }
}

const [ann, ben] = [new Person('ann'), new Person('ben')];
const text = async (path: string): Promise<string> =>
  (await fetch(`${server.url}/api/systems/quayside/documents/${path}`)).text();
const rules = async (): Promise<{ id: string; set: Record<string, Record<string, string>> }[]> =>
  (JSON.parse(await text(FIELD)) as { rules: { id: string; set: Record<string, Record<string, string>> }[] })
    .rules;
const ids = async (): Promise<string[]> => (await rules()).map(({ id }) => id);
const rule = (id: string): unknown => ({ id, when: { pointer: 'over' }, set: { frame: { opacity: '0.5' } } });
const put = (index: number | '-', id: string): PatchOperation => ({
  op: 'add',
  path: `/rules/${index}`,
  value: rule(id),
});
const opacity = (index: number, value: string): PatchOperation => ({
  op: 'replace',
  path: `/rules/${index}/set/frame/opacity`,
  value,
});

interface Listed {
  readonly change: string;
  readonly label: string;
  readonly made: number;
  readonly author: string;
  readonly state: string;
}
const listed = async (query = ''): Promise<Listed[]> =>
  (await ann.ask('GET', `/changes${query}`)).body as unknown as Listed[];

test('each takes back and brings back what they did themselves', async () => {
  const before = await text(FIELD);
  await ann.edit(FIELD, 'Ann’s rule', [put(0, 'of-ann')]);
  await ben.edit(FIELD, 'Ben’s rule', [put(0, 'of-ben')]);
  await ben.edit(FIELD, 'Ben’s order', [{ op: 'move', from: '/rules/1', path: '/rules/3' }]);
  const all = await text(FIELD);
  expect(await ann.ends()).toEqual(['Ann’s rule', undefined]);
  expect(await ben.ends()).toEqual(['Ben’s order', undefined]);
  expect((await ann.step('undo')).status).toBe(200);
  expect((await ids()).slice(0, 1)).toEqual(['of-ben']);
  expect(await ids()).not.toContain('of-ann');
  expect(await ann.ends()).toEqual([undefined, 'Ann’s rule']);
  expect(await ben.ends()).toEqual(['Ben’s order', undefined]);
  expect((await ann.step('redo')).status).toBe(200);
  expect(await text(FIELD)).toBe(all);
  await ben.step('undo');
  await ann.step('undo');
  await ben.step('undo');
  expect(await text(FIELD)).toBe(before);
});

test('what others have changed since stands in the way, and is named; the next step goes on behind it', async () => {
  await ann.edit(FIELD, 'First', [put(0, 'of-ann')]);
  await ann.edit(FIELD, 'Second', [opacity(0, '0.6')]);
  await ben.edit(FIELD, 'Ben’s opacity', [opacity(0, '0.7')]);
  const before = await text(FIELD);
  const { status, body } = await ann.step('undo');
  expect(status).toBe(409);
  expect(body).toMatchObject({
    type: 'urn:periwinkle:problem:in-the-way',
    obstacle: { label: 'Ben’s opacity' },
  });
  expect(body['detail']).toContain('“Second” cannot be taken back: /rules/0/set/frame/opacity');
  expect(body['detail']).toContain('“Ben’s opacity”');
  expect(await text(FIELD)).toBe(before);
  expect(await ann.ends()).toEqual(['First', undefined]);
  await ben.step('undo');
  // It is not lost: once nothing stands in the way any more, it is taken back by its name.
  const second = (await listed()).find(({ label }) => label === 'Second')!;
  expect((await ann.step('undo', second.change)).status).toBe(200);
  expect((await rules())[0]!.set['frame']!['opacity']).toBe('0.5');
  expect((await ann.step('undo')).status).toBe(200);
  expect(await ids()).not.toContain('of-ann');
});

test('any single change is taken back by its name, by anybody, and brought back by whoever took it back', async () => {
  await ann.edit(FIELD, 'One', [put('-', 'one')]);
  await ann.edit(FIELD, 'Two', [put('-', 'two')]);
  const [two, one] = await listed('?most=2');
  expect([two!.label, one!.label]).toEqual(['Two', 'One']);
  expect((await ben.step('undo', one!.change)).status).toBe(200);
  expect(await ids()).not.toContain('one');
  expect(await ids()).toContain('two');
  expect(await ann.ends()).toEqual(['Two', undefined]);
  expect((await ben.ends())[1]).toBe('One');
  const again = await ann.step('undo', one!.change);
  expect([again.status, again.body['detail']]).toEqual([409, '“One” has been taken back already.']);
  expect((await listed('?most=2')).map(({ state }) => state)).toEqual(['done', 'undone']);
  await ben.step('redo');
  expect((await ids()).slice(-2)).toEqual(['one', 'two']);
  expect((await ann.step('undo', 'no-such')).status).toBe(404);
  expect((await ann.ask('POST', '/undo', { chang: 'x' })).status).toBe(400);
  await ann.step('undo');
  await ann.step('undo');
});

test('a change of several parts is one, also where another has edited in between', async () => {
  const before = [await text(RAW), await text(FIELD)];
  await ann.edit(
    RAW,
    'A line',
    [{ op: 'add', path: '/raw/line/bold', value: { $value: { value: 3, unit: 'px' } } }],
    'a',
  );
  await ben.edit(RAW, 'Ben’s line', [
    { op: 'add', path: '/raw/line/ben', value: { $value: { value: 4, unit: 'px' } } },
  ]);
  await ann.edit(
    FIELD,
    'A line',
    [{ op: 'replace', path: '/rules/0/set/frame/border-width', value: '{raw.line.bold}' }],
    'a',
  );
  const all = [await text(RAW), await text(FIELD)];
  expect((await listed('?most=2')).map(({ label }) => label)).toEqual(['A line', 'Ben’s line']);
  expect((await ann.step('undo')).body).toHaveLength(2);
  expect(await text(FIELD)).toBe(before[1]);
  expect(await text(RAW)).not.toContain('"bold"');
  expect(await text(RAW)).toContain('"ben"');
  await ann.step('redo');
  expect(JSON.parse(await text(RAW))).toEqual(JSON.parse(all[0]!));
  expect(await text(FIELD)).toBe(all[1]);
  await ann.step('undo');
  await ben.step('undo');
  expect([await text(RAW), await text(FIELD)]).toEqual(before);
});

test('a part that arrives after its change was taken back is refused, and nothing of it stays', async () => {
  await ann.edit(FIELD, 'Part one', [put('-', 'part')], 'late');
  await ann.step('undo');
  const late = await ann.edit(
    FIELD,
    'Part two',
    [{ op: 'replace', path: '/summary', value: 'Late.' }],
    'late',
  );
  expect([late.status, late.body['type']]).toEqual([409, 'urn:periwinkle:problem:change-taken-back']);
  expect(await text(FIELD)).not.toContain('Late.');
});

test('what would break the system stays, and what it would break is said', async () => {
  await ann.edit(RAW, 'A token', [
    { op: 'add', path: '/raw/line/used', value: { $value: { value: 3, unit: 'px' } } },
  ]);
  await ben.edit(FIELD, 'Its use', [
    { op: 'replace', path: '/rules/0/set/frame/border-width', value: '{raw.line.used}' },
  ]);
  const { status, body } = await ann.step('undo');
  expect(status).toBe(409);
  expect(body['detail']).toContain('“A token” cannot be taken back');
  expect(body['detail']).toContain('raw.line.used');
  await ben.step('undo');
});

test('the list of changes is read in pages both ways', async () => {
  for (let count = 0; count < 6; count++)
    await ann.edit(FIELD, `Number ${count}`, [{ op: 'replace', path: '/summary', value: `${count}.` }]);
  const labels = (page: Listed[]): string[] => page.map(({ label }) => label);
  const first = await listed('?most=3');
  expect(labels(first)).toEqual(['Number 5', 'Number 4', 'Number 3']);
  const older = await listed(`?most=2&before=${first.at(-1)!.made}`);
  expect(labels(older)).toEqual(['Number 2', 'Number 1']);
  expect(labels(await listed(`?most=2&after=${older[0]!.made}`))).toEqual(['Number 4', 'Number 3']);
  expect(await listed(`?after=${first[0]!.made}`)).toEqual([]);
});

test('what was written over between reading and writing is done again, on what is there by then', async () => {
  const { db } = server.database;
  const path = 'system.json';
  const [row] = await db
    .select({ revision: documents.revision, body: documents.body })
    .from(documents)
    .where(and(eq(documents.systemId, 'quayside'), eq(documents.path, path)));
  const { revision, body } = row!;
  const now = { path, revision, body: JSON.parse(body!) as unknown, letters: body!.length };
  const names = { systemId: 'quayside', changeId: 'k', label: 'L', author: '' };
  const write = (read: number, lastEdit: number): Promise<unknown> => {
    const done = { document: { ...now, revision: read + 1 }, patch: [], inverse: [] };
    const edit = { ...names, done, editKey: 'k', kind: 'edit', target: null } as const;
    const before = new Map([[path, { ...now, revision: read }]]);
    return db.transaction(transaction => writeEdits(transaction, 'quayside', lastEdit, before, [edit]));
  };
  const last = Number((await ann.ask('GET', '')).body['lastEdit']);
  // Another node has written the document, or another edit of the system, meanwhile.
  await expect(write(revision - 1, last)).rejects.toThrow(Overtaken);
  await expect(write(revision, last - 1)).rejects.toThrow(Overtaken);
  expect(Number((await ann.ask('GET', '')).body['lastEdit'])).toBe(last);
  let tries = 0;
  const done = await inTransaction(db, async () => {
    if (++tries < 3) throw new Overtaken();
    return 'done';
  });
  expect([done, tries]).toEqual(['done', 3]);
});

test('a step that is taken back and forth all day costs no more than the first time', async () => {
  const path = 'tokens/many.tokens.json';
  const tokens = Object.fromEntries(
    Array.from({ length: 600 }, (_, index) => [`m${index}`, { $type: 'number', $value: index }]),
  );
  const parts = [{ path, revision: 0, key: 'many', patch: [{ op: 'replace', path: '', value: tokens }] }];
  expect((await ann.ask('POST', '/edits', { parts })).status).toBe(200);
  expect((await ann.edit(path, 'Take away the first', [{ op: 'remove', path: '/m0' }])).status).toBe(200);
  const text = async (): Promise<string> => JSON.stringify((await ann.ask('GET', `/documents/${path}`)).body);
  const without = await text();
  for (let time = 0; time < 8; time++)
    for (const [direction, expected] of [
      ['undo', JSON.stringify(tokens)],
      ['redo', without],
    ] as const) {
      const { status, body } = await ann.step(direction);
      expect(status).toBe(200);
      expect(await text()).toBe(expected);
      const [{ patch }] = body as unknown as [{ patch: unknown[] }];
      expect(patch.length).toBeLessThanOrEqual(601);
    }
});
