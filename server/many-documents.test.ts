import { Caller } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

/** Edits of more documents than go to the database in one statement: each document gets its own text and revision. */

let server: TestServer;
beforeAll(async () => void (server = await startTestServer()));
afterAll(() => server?.close());

const caller = new Caller(() => server.url);
const SYSTEM = '/api/systems/quayside';
const JSON_TYPE = { 'Content-Type': 'application/json' };
const COUNT = 130;
const pathOf = (index: number): string => `guide/page-${index}.md`;

/** Short and long ones, with signs of all scripts, and of SQL. */
const textOf = (index: number, round: number): string =>
  `${round}: ${index} ’;-- \\ 潮 😀 `.repeat(index % 40 === 0 ? 4_000 : 1);

interface Body {
  readonly documents: readonly { path: string; revision: number; body: unknown }[];
}
const pages = async (): Promise<(readonly [number, unknown] | undefined)[]> => {
  const { documents } = (await caller.call('GET', SYSTEM)).body as unknown as Body;
  const found = new Map(documents.map(({ path, revision, body }) => [path, [revision, body] as const]));
  return Array.from({ length: COUNT }, (_, index) => found.get(pathOf(index)));
};

/** Writes every page that has a revision. */
const write = (round: number, revisionOf: (index: number) => number | null) => {
  const parts = Array.from({ length: COUNT }, (_, index) => ({ index, revision: revisionOf(index) }))
    .filter(({ revision }) => revision !== null)
    .map(({ index, revision }) => ({
      path: pathOf(index),
      revision,
      key: `${round}-${index}`,
      patch: [{ op: 'replace', path: '', value: textOf(index, round) }],
    }));
  return caller.call('POST', `${SYSTEM}/edits`, JSON.stringify({ parts }), JSON_TYPE);
};

test('made, written together with others that are new, and taken back', async () => {
  const isOfFirst = (index: number): boolean => index % 2 === 0;
  expect((await write(1, index => (isOfFirst(index) ? 0 : null))).status).toBe(200);
  expect(await pages()).toEqual(
    Array.from({ length: COUNT }, (_, index) => (isOfFirst(index) ? [1, textOf(index, 1)] : undefined)),
  );
  expect((await write(2, index => (isOfFirst(index) ? 1 : 0))).status).toBe(200);
  expect(await pages()).toEqual(
    Array.from({ length: COUNT }, (_, index) => [isOfFirst(index) ? 2 : 1, textOf(index, 2)]),
  );
  expect((await caller.call('POST', `${SYSTEM}/undo`, '{}', JSON_TYPE)).status).toBe(200);
  expect(await pages()).toEqual(
    Array.from({ length: COUNT }, (_, index) => (isOfFirst(index) ? [3, textOf(index, 1)] : [2, null])),
  );
}, 60_000);
